import fc from 'fast-check';
import { fromPsi, toPsi } from './pressure';
import { sayFigure, sayLevel, sayPressure } from './say';
import { in3FromLitres, litresFromIn3 } from './volume';

describe('units', () => {
  it('turns 100 psi into 689.5 kPa and 6.89 bar', () => {
    // [std: NIST SP 811, value from memory]: 1 psi = 6.894 757 kPa
    expect(fromPsi(100, 'kPa')).toBeCloseTo(689.4757, 3);
    expect(fromPsi(100, 'bar')).toBeCloseTo(6.894757, 5);
  });

  it('comes back from every unit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.constantFrom('psi', 'kPa', 'bar' as const),
        (psi, unit) => {
          expect(toPsi(fromPsi(psi, unit), unit)).toBeCloseTo(psi, 9);
        },
      ),
    );
  });

  it('makes 45 L of 2,746 in³ and back', () => {
    expect(in3FromLitres(45)).toBeCloseTo(2746, 0);
    expect(litresFromIn3(in3FromLitres(45))).toBeCloseTo(45, 9);
  });

  it('says levels as a gauge is read', () => {
    expect(sayPressure(118, 'psi')).toBe('118 psi');
    expect(sayPressure(117.5, 'psi')).toBe('117.5 psi');
    expect(sayPressure(125, 'bar')).toBe('8.62 bar');
    expect(sayPressure(125, 'kPa')).toBe('862 kPa');
    expect(sayLevel(-0.01, 'psi')).toBe('0');
  });

  it('says rates in the reader’s unit', () => {
    expect(sayFigure(3, 'psi/min', 'psi')).toBe('3');
    expect(sayFigure(3, 'psi/min', 'bar')).toBe('0.21');
    expect(sayFigure(44.96, 's', 'bar')).toBe('45');
    expect(sayFigure(0.531, 'scfm', 'psi')).toBe('0.53');
  });
});
