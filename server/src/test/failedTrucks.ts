import type { JobHeader, JobRow, Unit, YardRow } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION, runMade } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { addTruck, laneOf, runHeader, wholeRun, type Agent, type Staff } from './testShop';

/** Trucks of a shop that failed, with jobs born of that; whose the shop is, is asked when it is there. */
export function failedTrucks(shopStaff: () => Staff) {
  let number = 500;

  /** A truck of its own. */
  const anotherTruck = () => addTruck(shopStaff().lead, String((number += 1)));

  /** Puts a finished run of a unit into the shop; gives its id. */
  async function ran(
    unit: Unit,
    lossPsi: number,
    { startMs = Date.now() - 3_600_000, retestOf }: { startMs?: number; retestOf?: string[] } = {},
  ): Promise<string> {
    const header = { ...runHeader(unit), startedAtMs: startMs };
    if (retestOf) {
      const leftOut = ['drain', 'build-up', 'cut-out', 'cut-in'];
      header.made = { ...runMade({ ...header.made, leftOut }), retestOf };
    }
    await shopStaff().technician.post('/api/logs').send(header).expect(201);
    const facts = wholeRun(lossPsi, { startMs }).filter(
      (fact) =>
        !retestOf || !('stepId' in fact) || ['prepare', 'static-hold'].includes(fact.stepId ?? ''),
    );
    await shopStaff()
      .technician.post(`/api/logs/${header.id}/facts`)
      .send({ facts: facts.map((fact, at) => ({ ...fact, seq: at + 1 })) })
      .expect(200);
    return header.id;
  }

  /** A truck with a failed static hold and a job born of it. */
  async function failedTruck() {
    const unit = await anotherTruck();
    const runId = await ran(unit, 6);
    const header: JobHeader = {
      id: uuidv7(),
      kind: 'job',
      v: JOB_VERSION,
      subject: { unitId: unit.id, rigId: null, partId: null },
      startedAtMs: Date.now() - 1_800_000,
      offsetMs: 0,
      coreVersion: CORE_VERSION,
      made: {
        units: [unit],
        foundOn: [unit.id],
        bornOf: { kind: 'failure', runId, key: 'figure:static-leak' },
        found: 'Static leak 6 psi/min, allowed at most 2',
        failures: [
          { runId, key: 'figure:static-leak', title: 'Static leak', value: 6, critical: true },
        ],
        suspected: null,
      },
    };
    await shopStaff().technician.post('/api/logs').send(header).expect(201);
    const lanes = new Map<Agent, { lane: string; seq: number }>();
    const tell = async (fact: object, by: Agent = shopStaff().technician) => {
      const at = lanes.get(by) ?? { lane: uuidv7(), seq: 0 };
      const [stamp] = laneOf([[0, { kind: 'close', how: 'complete' }]], { startMs: Date.now() });
      const { how: _how, ...plain } = stamp as unknown as Record<string, unknown>;
      const whole = { ...plain, v: JOB_VERSION, ...fact, lane: at.lane, seq: at.seq + 1 };
      const answer = await by.post(`/api/logs/${header.id}/facts`).send({ facts: [whole] });
      if (answer.status === 200) lanes.set(by, { ...at, seq: at.seq + 1 });
      const { status, body } = answer as { status: number; body: unknown };
      return { status, body, id: (whole as unknown as { id: string }).id };
    };
    const told = async (fact: object, by?: Agent) => {
      const answer = await tell(fact, by);
      expect([answer.status, answer.body]).toEqual([200, expect.anything()]);
      return answer.id;
    };
    const at = { unitId: unit.id, partId: 'primary-drain' };
    const row = async () =>
      ((await shopStaff().viewer.get('/api/jobs')).body as JobRow[]).find(
        ({ id }) => id === header.id,
      );
    const yard = async () =>
      ((await shopStaff().viewer.get('/api/yard')).body as YardRow[]).find(
        (each) => each.unit.id === unit.id,
      );
    return { unit, runId, header, tell, told, at, row, yard };
  }

  return { ran, failedTruck, anotherTruck };
}

/** What a phone says of a retest that passed. */
export const retested = (owedId: string, logId: string, more: object = {}) => ({
  kind: 'retested',
  owedId,
  logId,
  verdict: 'pass',
  said: 'Static leak 1 psi/min',
  readings: [],
  ...more,
});
