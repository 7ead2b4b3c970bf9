import { nearestReadingPsi } from '../../gauge/graduation';
import { usualGauge } from '../../rig/newUnit';
import { fromPsi } from '../../units/pressure';
import { needlePsi, trembleAt, usualSeenGauge } from './seenGauge';

describe('a dial as it is seen', () => {
  it('trembles about where it stands, never by more than it may', () => {
    const seen = Array.from({ length: 2_000 }, (_, n) => trembleAt(usualSeenGauge, n / 100));
    for (const off of seen) expect(Math.abs(off)).toBeLessThanOrEqual(usualSeenGauge.tremblePsi);
    expect(Math.max(...seen)).toBeGreaterThan(0.6 * usualSeenGauge.tremblePsi);
    expect(Math.abs(seen.reduce((sum, off) => sum + off, 0) / seen.length)).toBeLessThan(0.01);
    expect(trembleAt({ ...usualSeenGauge, tremblePsi: 0 }, 3.3)).toBe(0);
  });

  it('lags, shows its error, and is read to the half division', () => {
    const soon = needlePsi({ ...usualSeenGauge, errorPsi: 2 }, 100, 110, 0.25);
    expect(soon).toBeCloseTo(100 + 12 * (1 - Math.exp(-1)), 6);
    expect(needlePsi({ ...usualSeenGauge, errorPsi: 2 }, 100, 110, 60)).toBeCloseTo(112, 6);
    expect(nearestReadingPsi(111.6, usualGauge.psi)).toBe(112);
    expect(nearestReadingPsi(400, usualGauge.psi)).toBe(150);
    expect(fromPsi(nearestReadingPsi(112, usualGauge.bar), 'bar')).toBeCloseTo(7.7, 6);
  });
});
