/** @jest-environment node */
import truck from '../../../core/src/log/golden/records/run-0.2.0-truck.json';
import { logOf } from './fromFirstVersion';

const run = {
  ...{ id: truck.header.id, shopId: 's', personId: 'p', header: truck.header },
  ...{ opened: true, closed: false, refused: null },
};
type Old = Parameters<typeof logOf>[1][number];
const old = (at: number, change: Partial<Old> = {}, event: object = {}): Old => ({
  runId: run.id,
  sent: 0,
  ...change,
  ...(() => {
    const whole = { ...truck.facts[at]!, ...event } as unknown as Old['event'];
    return { id: change.id ?? whole.id, event: { ...whole, id: change.id ?? whole.id } };
  })(),
});
const idsOf = (events: readonly Old[]) =>
  logOf(run, events).facts.map(({ id, seq }) => `${seq} ${id}`);

describe('a run of the first version', () => {
  it('has what was sent first, then by place, by time, and by id', () => {
    const [a, b] = ['00000000-0000-7000-8000-00000000000a', '00000000-0000-7000-8000-00000000000b'];
    // Two tabs gave one place to what was marked in one millisecond.
    const two = [old(3, { id: b }), old(3, { id: a })];
    expect(idsOf(two)).toEqual([`1 ${a}`, `2 ${b}`]);
    expect(idsOf([...two].reverse())).toEqual([`1 ${a}`, `2 ${b}`]);
    const later = old(3, { id: a }, { atMs: truck.facts[3]!.atMs + 1 });
    expect(idsOf([later, old(3, { id: b })])).toEqual([`1 ${b}`, `2 ${a}`]);
    const sent = old(4, { id: b, sent: 1 });
    expect(idsOf([old(3, { id: a }), sent])).toEqual([`1 ${b}`, `2 ${a}`]);
    expect(idsOf([old(4, { id: a }), old(3, { id: b })])).toEqual([`1 ${b}`, `2 ${a}`]);
  });
});
