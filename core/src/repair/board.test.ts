import type { JobFact } from '@keen-bleed/contract';
import type { NewFact } from '../facts/newFact';
import { jobHeader, JobWriter } from '../test/jobWriter';
import { unitOf } from '../test/walk';
import { boardOf, holdsOf } from './board';

const truck = unitOf('truck', '10');
const trailer = unitOf('trailer', '22');
const relay = { unitId: truck.id, partId: 'rear-relay' };
const lamp = { unitId: truck.id, partId: 'stop-lamp-switch' };
const reading = (title: string, before: number | null, after: number | null) => ({
  ...{ title, unit: 'psi/min', before, after, expected: 0.4 },
});

/*
 * A job from found to released, and its board at each station, as it stands: no proof that it is right, but nothing on it
 * changes unseen.
 */
const STORY: readonly (readonly [
  what: string,
  fact: NewFact<JobFact> | 'retests' | 'retests again',
])[] = [
  ['suspected', { kind: 'note', text: 'Ask the driver' }],
  [
    'proven wrongly',
    { kind: 'proven', at: lamp, text: 'sticks', by: 'Lamps', faultId: 'lamp stuck' },
  ],
  [
    'refused',
    { kind: 'refused', at: lamp, offered: { setPsi: 9 }, problems: ['Too high', 'Too old'] },
  ],
  ['chosen', { kind: 'chosen', at: lamp, repair: 'replaced', offered: { number: 'S1' } }],
  ['waiting', { kind: 'waiting', text: 'a switch', until: '2026-12-01' }],
  ['fitted', { kind: 'fitted', at: lamp, repair: 'replaced', was: {}, now: {} }],
  ['reopened', { kind: 'reopened', because: 'leaks still' }],
  [
    'proven',
    {
      kind: 'proven',
      at: relay,
      text: 'does not let go',
      by: 'Curve',
      because: 'the lamp was sound',
      faultId: 'leak: rear relay',
    },
  ],
  [
    'measure',
    {
      kind: 'measure',
      at: { unitId: trailer.id, partId: 'relay' },
      measure: 'capped-line',
      text: 'red line',
    },
  ],
  ['fitted again', { kind: 'fitted', at: relay, repair: 'replaced', was: {}, now: { setPsi: 4 } }],
  ['given', { kind: 'owner', personId: truck.id, name: 'Idris' }],
  ['wanted', { kind: 'wanted-by', day: '2026-12-24' }],
  ['retested', 'retests'],
  ['asked', { kind: 'ask-release' }],
] as never;

it('is on the board like this, station by station', () => {
  const job = new JobWriter(
    jobHeader([truck, trailer], {
      foundOn: [truck.id, trailer.id],
      suspected: {
        partId: 'rear-relay',
        unitId: truck.id,
        chance: 0.4,
        faults: [],
        title: 'Relay',
      },
      failures: [
        {
          runId: truck.id,
          key: 'figure:applied-leak',
          title: 'Applied leak',
          value: 6,
          critical: true,
        },
        {
          runId: truck.id,
          key: 'look:prepare/water',
          title: 'Water',
          value: null,
          critical: false,
        },
      ],
    } as never),
  );
  const said = [['found', boardOf(job.log.header, job.state), holdsOf(job.state)]];
  for (const [what, fact] of STORY) {
    if (typeof fact === 'object') job.tell(fact);
    else
      job.state.owed.forEach(({ id }, n) =>
        job.tell({
          ...{ kind: 'retested', owedId: id, logId: truck.id, verdict: 'pass', said: 'Holds' },
          readings: [
            reading('Static leak', 3.9, 0.4 + n),
            reading('Other', null, 2),
            reading('Same', 2, 2.1),
          ],
        } as never),
      );
    said.push([what, boardOf(job.log.header, job.state), holdsOf(job.state)]);
  }
  // Ids of facts go on from test to test.
  const same = JSON.stringify(said, null, 1).replace(/"id": "[0-9a-f-]{36}"/g, '"id": "its own"');
  expect(same).toMatchSnapshot();
  const released = { ...job.state, released: { atServerMs: 9, lane: 'x', digest: 'y' } } as never;
  expect(boardOf(job.log.header as never, released).learns).toMatchSnapshot();
  expect(boardOf(job.log.header as never, released).line).toBe('Rear relay: released');
  const given = { ...job.state, closed: { atMs: 5 }, given: { because: 'sold' } } as never;
  expect(boardOf(job.log.header as never, given)).toMatchObject({
    ...{ line: 'Closed without repair: sold', holds: [], owed: [], wants: [] },
  });
  expect(holdsOf({ ...job.state, overtaken: true })).toMatchSnapshot();
});

it('says which reading changed most, and nothing of one that hardly moved', () => {
  const line = (...readings: object[]) => {
    const job = new JobWriter(jobHeader([truck]));
    job.tell({ kind: 'proven', at: relay, text: 'leaks', by: 'Soap' });
    job.tell({ kind: 'fitted', at: relay, repair: 'replaced', was: {}, now: {} });
    for (const { id } of job.state.owed)
      job.tell({
        ...{
          kind: 'retested',
          owedId: id,
          logId: truck.id,
          verdict: 'pass',
          said: 'Holds',
          readings,
        },
      } as never);
    return boardOf(job.log.header, job.state).line;
  };
  expect(line(reading('Static leak', 3.9, 0.4), reading('Cut-out', 126, 120))).toBe(
    'Rear relay replaced, static leak 3.9 psi/min → 0.4 psi/min',
  );
  expect(line(reading('Static leak', 10, 9.1))).toBe('Rear relay replaced, retest passed');
  expect(line(reading('Static leak', 10, 9))).toContain('→');
  expect(line(reading('Static leak', null, 9))).toBe('Rear relay replaced, retest passed');
});
