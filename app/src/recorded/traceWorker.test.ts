import { makeTraceWorker } from './traceWorker';

/** A tank that climbs to cut-out at 60 s and stands, with a column of its dryer that has holes. */
function file(): File {
  const rows = ['time_s,Tank (psi),Dryer (psi)'];
  for (let n = 0; n <= 3_000; n += 1) {
    const s = n / 10;
    const tank = Math.min(125, 89 + 0.6 * s);
    const dryer = s < 60 ? tank + 2 : 0;
    rows.push(`${s.toFixed(1)},${tank.toFixed(2)},${n % 7 === 0 ? '' : dryer.toFixed(2)}`);
  }
  return new File([rows.join('\n')], 'log.csv', { type: 'text/csv' });
}
const columns = {
  time: 0,
  timeUnit: 's',
  pressures: [
    { at: 1, title: 'Tank (psi)', unit: 'psi' },
    { at: 2, title: 'Dryer (psi)', unit: 'psi' },
  ],
} as const;

describe('a trace in its worker', () => {
  it('is read with its progress, taken apart, drawn column by column, and played as a gauge would send', async () => {
    const worker = makeTraceWorker();
    expect((await worker.heads(file())).map(({ unit }) => unit)).toEqual(['s', 'psi', 'psi']);
    const told: number[] = [];
    const found = await worker.read(file(), columns, (share) => told.push(share));
    expect(told.at(-1)).toBe(1);
    expect(found).toMatchObject({ rows: 3_001, leftOut: 0, endS: 300 });
    expect(found.segments.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['build-up', 'cut-out', 'purge', 'hold']),
    );
    const [tank, dryer] = worker.draw(0, 300, 100);
    expect(Math.max(...(tank ?? []).map(({ psi }) => psi))).toBe(125);
    expect(dryer?.some(({ psi }) => Number.isNaN(psi))).toBe(false);

    const played = worker.played(10, 12);
    expect(played).toHaveLength(20);
    expect(played[0]?.s).toBeCloseTo(10.1, 9);
    expect(played[0]?.psi).toBeCloseTo(89 + 0.6 * 10.1, 1);
    expect(worker.played(12, 12)).toEqual([]);

    const climb = found.segments.find(({ kind }) => kind === 'build-up');
    const left = worker.residuals(climb?.fromS ?? 0, climb?.toS ?? 0, 50);
    expect(left.length).toBeGreaterThan(10);
    const [head, first] = worker.csv().split(/\r?\n/);
    expect(head).toBe('time_s,Tank (psi),Dryer (psi)');
    expect(first).toBe('0.000,89.000,');
  });

  it.each([
    [
      'a logger’s own lines first',
      ['Logger 4711, rev 2', 'Shop: Grit & Sons', '', 'time,Tank (kPa)'],
    ],
    ['no heads at all', []],
    ['heads alone', ['Time,Tank bar']],
  ])('is read with %s', async (_title, before) => {
    const rows = ['10:00:00,6.10', '10:00:01,6.15', '10:00:02,6.20'];
    const made = new File([[...before, ...rows].join('\n')], 'log.csv', { type: 'text/csv' });
    const worker = makeTraceWorker();
    const heads = await worker.heads(made);
    expect(heads).toHaveLength(2);
    expect(heads[1]?.title).toBe(before.at(-1)?.split(',')[1] ?? 'column 2');
    const found = await worker.read(
      made,
      { time: 0, timeUnit: 's', pressures: [{ at: 1, title: 'Tank', unit: 'bar' }] },
      () => undefined,
    );
    expect(found).toMatchObject({ rows: 3, leftOut: 0, endS: 2 });
  });
});
