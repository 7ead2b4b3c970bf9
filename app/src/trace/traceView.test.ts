import fc from 'fast-check';
import { moved, within, zoomed, type TraceView } from './traceView';

const END_S = 600;
const views = fc
  .tuple(
    fc.double({ min: 0, max: END_S, noNaN: true }),
    fc.double({ min: 0, max: END_S, noNaN: true }),
  )
  .map(([a, b]): TraceView => within([Math.min(a, b), Math.max(a, b)], END_S));
const isInside = ([fromS, toS]: TraceView) => {
  expect(fromS).toBeGreaterThanOrEqual(-1e-9);
  expect(toS).toBeLessThanOrEqual(END_S + 1e-9);
  expect(toS - fromS).toBeGreaterThan(1.99);
};

describe('a stretch that is looked at', () => {
  it('stays within the trace however it is zoomed and moved', () => {
    fc.assert(
      fc.property(views, fc.double({ min: 0.1, max: 10, noNaN: true }), (view, times) => {
        isInside(zoomed(view, times, END_S));
        isInside(moved(view, times, END_S));
        isInside(moved(view, -times, END_S));
      }),
    );
  });

  it('keeps the moment it is zoomed about where it was seen', () => {
    const [fromS, toS] = zoomed([100, 200], 2, END_S, 125);
    expect((125 - fromS) / (toS - fromS)).toBeCloseTo(0.25, 9);
    expect(toS - fromS).toBeCloseTo(50, 9);
  });

  it('is the whole of a trace too short to be looked at closer', () => {
    expect(within([0.4, 0.5], 1)).toEqual([0, 1]);
  });
});
