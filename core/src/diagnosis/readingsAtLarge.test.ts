import { READER, UNLISTED_WAYS } from './oddReadings';
import { measureOf, measured, modelOff, numberFigures } from './runFigures';

/* How figures differ, and what a reader or a dial does to them: the terms that every weighing rests on. */
describe('a figure of a run', () => {
  it('differs by its logarithm where it is a time, bent where it is a fall, and plainly else', () => {
    expect(numberFigures.filter((figure) => measureOf(figure) === 'log')).toEqual(['build-up']);
    expect(numberFigures.filter((figure) => measureOf(figure) === 'fall').sort()).toEqual(
      numberFigures.filter((figure) => /static|applied/.test(figure)).sort(),
    );
    expect(measured('build-up', 60)).toBeCloseTo(Math.log(60), 12);
    // A fall is itself where it is small, and goes by its ratio where it is large.
    expect(measured('static primary', 0.01)).toBeCloseTo(0.01, 5);
    expect(measured('static primary', 200) - measured('static primary', 100)).toBeCloseTo(
      Math.LN2,
      4,
    );
    expect(measured('cut-out', 125)).toBe(125);
  });

  it('is worked out to a part in twenty of a time, a tenth of a psi of a fall, a psi of a level', () => {
    expect(modelOff('build-up')).toBeCloseTo(1 / 20, 12);
    expect(modelOff('cut-out')).toBe(1);
    expect(modelOff('applied primary')).toBeGreaterThan(0.1);
    expect(modelOff('applied primary')).toBeLessThan(0.15);
  });
});

describe('a reader', () => {
  it('slips in one figure at a time, ten of them, and a dial is off in all its levels at once', () => {
    const [dial, ...slips] = READER;
    expect(dial?.which).toBe('dial');
    expect(Object.keys(dial?.of ?? {}).sort()).toEqual(
      ['cut-in', 'cut-out', 'red', 'warning', 'yellow'].sort(),
    );
    expect(new Set(Object.values(dial?.of ?? {}))).toEqual(new Set([9]));
    expect(slips.map(({ which }) => which)).toEqual(numberFigures.slice(0, 10));
    for (const { which, of } of slips) expect(Object.keys(of)).toEqual([which]);
  });

  it('is no fault of the rig: what is not in the list moves more than one figure', () => {
    for (const way of UNLISTED_WAYS) expect(way.length).toBeGreaterThan(2);
  });
});
