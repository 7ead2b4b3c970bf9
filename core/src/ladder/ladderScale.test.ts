import fc from 'fast-check';
import { ladderScale, LADDER_MARGIN, spreadApart } from './ladderScale';

const psi = { unit: 'psi', division: 2, top: 150 } as const;
const bar = { unit: 'bar', division: 0.2, top: 12 } as const;
const PSI_PER_BAR = 1 / 0.06894757;
const labels = (scale: ReturnType<typeof ladderScale>) =>
  scale.lines.flatMap((line) => (line.label === null ? [] : [line.label]));

describe('the ladder’s scale', () => {
  it('numbers a whole psi dial by 25, and a whole bar dial by 2', () => {
    expect(labels(ladderScale(psi, [0, 150], 480))).toEqual([
      '0',
      '25',
      '50',
      '75',
      '100',
      '125',
      '150',
    ]);
    expect(labels(ladderScale(bar, [0, 12 * PSI_PER_BAR], 480))).toEqual([
      '0',
      '2',
      '4',
      '6',
      '8',
      '10',
      '12',
    ]);
  });

  it('numbers lines of the dial, and nothing between them, when it looks close', () => {
    const close = labels(ladderScale(bar, [7.2 * PSI_PER_BAR, 9.2 * PSI_PER_BAR], 460));
    expect(close).toEqual(expect.arrayContaining(['7.2', '8', '9']));
    for (const label of close) {
      const divisions = Number(label) / 0.2;
      expect(Math.abs(divisions - Math.round(divisions))).toBeLessThan(1e-9);
    }
    expect(labels(ladderScale(psi, [106, 126], 460))).toEqual([
      '106',
      '108',
      '110',
      '112',
      '114',
      '116',
      '118',
      '120',
      '122',
      '124',
      '126',
    ]);
  });

  it('draws each line once, the numbered ones as those', () => {
    const { lines } = ladderScale(psi, [0, 150], 480);
    const places = lines.map((line) => line.psi.toFixed(6));
    expect(new Set(places).size).toBe(places.length);
    expect(lines.filter(({ label }) => label === null).length).toBeGreaterThan(6);
    expect(lines.find((line) => line.psi === 100)?.label).toBe('100');
  });

  it('puts more pressure higher, and finds its way back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 150, noNaN: true }),
        (a, b) => {
          const scale = ladderScale(psi, [0, 150], 480);
          expect(scale.psi(scale.y(a))).toBeCloseTo(a, 6);
          if (a > b + 1e-6) expect(scale.y(a)).toBeLessThan(scale.y(b));
        },
      ),
    );
  });

  it('leaves room for a flag at either end', () => {
    const scale = ladderScale(psi, [0, 150], 480);
    expect(scale.y(150)).toBe(LADDER_MARGIN);
    expect(scale.y(0)).toBe(480 - LADDER_MARGIN);
  });
});

describe('flags that would lie on each other', () => {
  it('are spread apart in their order, inside the ladder, and left alone where there is room', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 460, noNaN: true }), { maxLength: 12 }),
        (places) => {
          const spread = spreadApart(places, 21, 470);
          const order = places
            .map((_, index) => index)
            .sort((a, b) => (places[a] ?? 0) - (places[b] ?? 0));
          for (let n = 1; n < order.length; n += 1) {
            const above = spread[order[n - 1] ?? 0] ?? 0;
            expect((spread[order[n] ?? 0] ?? 0) - above).toBeGreaterThan(21 - 1e-6);
          }
          expect(Math.max(0, ...spread)).toBeLessThanOrEqual(470);
        },
      ),
    );
    expect(spreadApart([10, 100, 200], 21, 470)).toEqual([10, 100, 200]);
  });
});
