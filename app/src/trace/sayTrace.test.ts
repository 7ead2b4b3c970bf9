import type { Segment } from '@keen-bleed/core/trace';
import { saySegment } from './sayTrace';

const segment = (change: Partial<Segment>): Segment => ({
  kind: 'hold',
  fromS: 65,
  toS: 130,
  fromPsi: 120,
  toPsi: 118,
  slopePsiPerS: -0.03,
  residualPsi: 0.05,
  ...change,
});

describe('a segment in words', () => {
  it('gives a hold’s fall by the minute, in the unit that is wanted', () => {
    expect(saySegment(segment({}), 'psi')).toBe(
      '1:05 to 2:10 · 120 psi to 118 psi · −1.8 psi/min, ± 0.05 about the line',
    );
    expect(saySegment(segment({}), 'kPa')).toContain('−12.41 kPa/min');
  });

  it('gives a climb by the second, and a turning point as one moment', () => {
    expect(saySegment(segment({ kind: 'build-up', slopePsiPerS: 0.7 }), 'psi')).toContain(
      '0.7 psi/s',
    );
    expect(saySegment(segment({ kind: 'cut-out', toS: 65, slopePsiPerS: null }), 'psi')).toBe(
      '1:05 · 120 psi',
    );
  });

  it('says no slope where none was fitted', () => {
    expect(saySegment(segment({ kind: 'fall', slopePsiPerS: null }), 'psi')).toBe(
      '1:05 to 2:10 · 120 psi to 118 psi',
    );
  });
});
