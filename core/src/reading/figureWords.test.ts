import { sayFigureLine, sayLimit, sayValue } from './figureWords';

describe('a limit in words', () => {
  it('has both of its ends, one, or none', () => {
    expect(sayLimit({ min: 120, max: 140 }, 'psi', 'psi')).toBe('120 to 140 psi');
    expect(sayLimit({ min: null, max: 2 }, 'psi/min', 'psi')).toBe('at most 2 psi/min');
    expect(sayLimit({ min: 55, max: null }, 'psi', 'psi')).toBe('at least 55 psi');
    expect(sayLimit({ min: null, max: null }, 'psi', 'psi')).toBe('no limit');
    expect(sayLimit({ min: 0, max: 0 }, 's', 'psi')).toBe('0 to 0 s');
  });

  it('is said in the gauge’s unit, and a time is a time on any gauge', () => {
    // 100 psi are 689.5 kPa and 6.895 bar [std: BIPM SI brochure by way of 6.894757 kPa a psi].
    expect(sayLimit({ min: null, max: 100 }, 'psi', 'kPa')).toBe('at most 689 kPa');
    expect(sayLimit({ min: null, max: 100 }, 'psi', 'bar')).toBe('at most 6.89 bar');
    expect(sayLimit({ min: null, max: 45 }, 's', 'bar')).toBe('at most 45 s');
  });
});

describe('a figure in a line', () => {
  const figure = (change: object) =>
    ({
      ...{ id: 'static-leak', value: 4.9, atMost: null, unit: 'psi/min' },
      ...{ limit: { min: null, max: 2 }, read: 5 },
      ...change,
    }) as never;

  it('has its number and what is allowed, where anything is', () => {
    expect(sayFigureLine(figure({}), 'psi')).toBe('Static leak 4.9 psi/min, allowed at most 2');
    expect(sayFigureLine(figure({ limit: null }), 'psi')).toBe('Static leak 4.9 psi/min');
    expect(sayFigureLine(figure({ limit: { min: null, max: null } }), 'psi')).toBe(
      'Static leak 4.9 psi/min',
    );
  });

  it('has the number as it was read where that heads, a bound where it is only bounded, and says where there is none', () => {
    expect(sayFigureLine(figure({ heads: 'as-read' }), 'psi')).toContain('Static leak 5 psi/min');
    expect(sayFigureLine(figure({ heads: 'as-read', read: null }), 'psi')).toContain('leak 4.9');
    expect(sayFigureLine(figure({ atMost: 0.7 }), 'psi')).toContain('leak under 0.7 psi/min');
    expect(sayFigureLine(figure({ value: null }), 'psi')).toBe('Static leak could not be read');
    expect(sayValue(30, 's', 'kPa')).toBe('30 s');
  });
});
