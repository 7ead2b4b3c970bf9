import type { VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { addTruck, laneOf, STARTED_MS, type Agent, type Staff } from './testShop';

/** A visit of a truck that a technician has opened, what may be noted in it, and the way to send that. */
export async function anOpenVisit(staff: Staff, number: string) {
  const unit = await addTruck(staff.lead, number);
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: STARTED_MS,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: 'Loses air overnight' },
  };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const said = (text: string, change: object = {}) => ({
    ...laneOf([[1, { kind: 'note' }]], { startMs: Date.now() })[0]!,
    v: VISIT_VERSION,
    at: null,
    text,
    ...change,
  });
  const send = (facts: object[], by: Agent) =>
    by.post(`/api/logs/${header.id}/facts`).send({ facts });
  return { unit, header, said, send };
}
