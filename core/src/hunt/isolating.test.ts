import { semi } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { seenTable, type SeenTable } from './seenTable';

/* Our own twin on both sides: what an isolating step leaves out, by the lines of the rig. */

const fall = (table: SeenTable, state: string, needle: string, place: string): number => {
  const row = table.rows.findIndex((each) => each.state === state && each.needle === needle);
  if (row < 0) throw new Error(`no row ${state} ${needle}`);
  return table.falls[place]![row]!;
};

describe('isolating steps', () => {
  it('with supply drained a leak before the checks is on no needle, one behind them still is', () => {
    const table = seenTable(semi);
    expect(fall(table, 'supply drained', 'primary', 'supply tank')).toBeLessThan(0.3);
    expect(fall(table, 'supply drained', 'primary', 'primary tank')).toBeGreaterThan(3);
    // One trailer has nothing behind its cocks.
    expect(table.rows.some(({ state }) => state === 'cocks shut')).toBe(false);
  });

  it('with the first cocks shut a leak on the second trailer is on no needle of the tractor', () => {
    const { unit, towed } = semi;
    const table = seenTable({
      unit,
      towed: [...towed, { ...unitOf('dolly', '33') }, { ...unitOf('trailer', '34') }],
    });
    const second = Object.keys(table.falls).find((place) => place === '#3 tank')!;
    const open = Math.max(
      fall(table, 'released', 'primary', second),
      fall(table, 'released', 'secondary', second),
    );
    expect(open).toBeGreaterThan(0.3);
    for (const needle of ['primary', 'secondary']) {
      expect(fall(table, 'cocks shut', needle, second)).toBeLessThan(0.1 * open);
    }
    expect(
      Math.max(
        fall(table, 'cocks shut', 'primary', '#1 tank'),
        fall(table, 'cocks shut', 'secondary', '#1 tank'),
      ),
    ).toBeGreaterThan(0.3);
  });
});
