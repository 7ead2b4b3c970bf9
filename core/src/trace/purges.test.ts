import { purgesOf } from './purges';
import type { Segment, Trace } from './segments';

const CUT_OUT_S = 60;
const cutOut: Segment = {
  ...{ kind: 'cut-out', fromS: CUT_OUT_S, toS: CUT_OUT_S, fromPsi: 125, toPsi: 125 },
  ...{ slopePsiPerS: null, residualPsi: null },
};

/** A dryer that stands at a pressure, and from some seconds after the cut-out falls evenly to another. */
function dryer({ fromPsi = 125, toPsi = 0, afterS = 1, inS = 20 }): Trace {
  const seconds = Float64Array.from({ length: 2_400 }, (_, n) => n / 10);
  const psi = seconds.map((s) => {
    const share = Math.min(1, Math.max(0, (s - CUT_OUT_S - afterS) / inS));
    return fromPsi + (toPsi - fromPsi) * share;
  });
  return { seconds, psi };
}
const purges = (trace: Trace) => purgesOf([trace], [cutOut]);

describe('a purge in the dryer’s own column', () => {
  it('lasts from where the pressure lets go to where a twentieth of it is left', () => {
    const [purge] = purges(dryer({ inS: 10 }));
    expect(purge?.fromS).toBeCloseTo(CUT_OUT_S + 1.5, 0);
    expect(purge?.toS).toBeCloseTo(CUT_OUT_S + 1 + 9.5, 0);
    expect(purge?.fromPsi).toBeGreaterThan(115);
    expect(purge?.toPsi).toBeLessThan(0.05 * 125 + 1);
  });

  it('begins within some seconds of the cut-out: what falls later is something else', () => {
    expect(purges(dryer({ afterS: 6, inS: 8 }))).toHaveLength(1);
    expect(purges(dryer({ afterS: 20, inS: 8 }))).toEqual([]);
  });

  it('falls under half at once, as no tank does', () => {
    expect(purges(dryer({ toPsi: 70 }))).toEqual([]);
    expect(purges(dryer({ toPsi: 100, inS: 2 }))).toEqual([]);
    expect(purges(dryer({ toPsi: 20, inS: 5 }))).toHaveLength(1);
  });

  it('begins where it first let go: what rises again within those seconds is no second beginning', () => {
    const falls = dryer({ afterS: 1, inS: 3 });
    const rises = {
      ...falls,
      // A valve that shuts and opens again: it is back for half a second, then empty.
      psi: falls.psi.map((psi, n) => (Math.abs(falls.seconds[n]! - 65) < 0.3 ? 125 : psi)),
    };
    expect(purges(rises)[0]?.fromS).toBe(purges(falls)[0]?.fromS);
    expect(purges(falls)).toHaveLength(1);
  });

  it('is none where there was next to nothing to let go', () => {
    expect(purges(dryer({ fromPsi: 30, inS: 5 }))).toEqual([]);
    expect(purges(dryer({ fromPsi: 60, inS: 5 }))).toHaveLength(1);
  });

  it('is followed for a minute and a half and no longer', () => {
    // It falls to half within seconds, then lingers over what counts as empty.
    const lingers = dryer({ toPsi: 20, inS: 5 });
    const [purge] = purges(lingers);
    expect((purge?.toS ?? 0) - (purge?.fromS ?? 0)).toBeCloseTo(90, 0);
  });
});
