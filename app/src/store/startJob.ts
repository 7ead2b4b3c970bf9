import type { JobHeader, JobMade, Unit } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { deviceMs, measuredClock } from '../wire/serverClock';
import { askToPersist, type Writer } from './kept';
import { openOnDevice } from './logs';
import { sendSoon } from './outbox';

/** What a job is opened with. */
export type NewJob = Omit<JobMade, 'units'> & {
  units: readonly [Unit, ...Unit[]];
  rigId: string | null;
};

/**
 * Opens a job on this device, or goes on with the one of the same unit that is open here for the same thing.
 *
 * @returns the job's id
 */
export async function startJob(who: Writer, { units, rigId, ...made }: NewJob): Promise<string> {
  void askToPersist();
  const header: JobHeader = {
    id: uuidv7(),
    kind: 'job',
    v: JOB_VERSION,
    subject: { unitId: units[0].id, rigId, partId: null },
    startedAtMs: deviceMs(),
    offsetMs: measuredClock().aheadMs,
    coreVersion: CORE_VERSION,
    made: { ...made, units: [...units] },
  };
  const same = JSON.stringify(made.bornOf);
  const isOneBorn = made.bornOf.kind !== 'hand';
  const { log } = await openOnDevice(
    who,
    header,
    (open) =>
      isOneBorn && open.header.kind === 'job' && JSON.stringify(open.header.made.bornOf) === same,
  );
  sendSoon();
  return log.id;
}
