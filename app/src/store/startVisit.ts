import type { Unit, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { deviceMs, measuredClock } from '../wire/serverClock';
import { askToPersist, type Writer } from './kept';
import { openOnDevice } from './logs';
import { sendSoon } from './outbox';

/** What is visited: the unit, or the rig front to rear, and why. */
export interface NewVisit {
  units: readonly [Unit, ...Unit[]];
  rigId: string | null;
  reason: string | null;
}

/**
 * Opens a visit on this device, or goes on with the one of the same unit or rig that is open here.
 *
 * @returns the visit's id
 */
export async function startVisit(who: Writer, { units, rigId, reason }: NewVisit): Promise<string> {
  void askToPersist();
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: units[0].id, rigId, partId: null },
    startedAtMs: deviceMs(),
    offsetMs: measuredClock().aheadMs,
    coreVersion: CORE_VERSION,
    made: { units: [...units], reason },
  };
  const { log } = await openOnDevice(who, header, (open) => open.header.subject.rigId === rigId);
  sendSoon();
  return log.id;
}
