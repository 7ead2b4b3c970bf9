import { jStat } from 'jstat';
import { judge, judgeBy } from './judge';

const most = { min: null, max: 2 };
const least = { min: 100, max: null };

describe('a figure beside its limit', () => {
  it('is as read within a bound that it lies on, however small or negative it is', () => {
    expect(judge(2, 0.1, most).asRead).toBe('pass');
    expect(judge(2.001, 0.1, most).asRead).toBe('fail');
    // A needle that climbs over a hold: nothing but a maximum is asked of a leak.
    expect(judge(-3, 0.1, most)).toMatchObject({ asRead: 'pass', verdict: 'pass' });
    expect(judge(100, 1, least).asRead).toBe('pass');
    expect(judge(99.999, 1, least).asRead).toBe('fail');
    expect(judge(9_999, 1, least)).toMatchObject({ asRead: 'pass', verdict: 'pass' });
  });

  it('lies within by the normal law, as a library has it, and is judged from 95 in 100 on', () => {
    const at = jStat.normal.inv(0.95, 0, 1);
    for (const by of [at + 0.01, at - 0.01]) {
      const { within, verdict } = judge(2 - 0.5 * by, 0.5, most);
      expect(within).toBeCloseTo(jStat.normal.cdf(by, 0, 1), 6);
      expect(verdict).toBe(by > at ? 'pass' : 'cant-tell');
      expect(judge(2 + 0.5 * by, 0.5, most).verdict).toBe(by > at ? 'fail' : 'cant-tell');
    }
  });

  it('is as sure as is asked for', () => {
    expect(judgeBy(1, 0.95, most).verdict).toBe('pass');
    expect(judgeBy(1, 0.949, most).verdict).toBe('cant-tell');
    expect(judgeBy(1, 0.949, most, 0.9).verdict).toBe('pass');
    expect(judgeBy(3, 0.05, most).verdict).toBe('fail');
    expect(judgeBy(3, 0.051, most).verdict).toBe('cant-tell');
    expect(judgeBy(3, 0.051, most, 0.9).verdict).toBe('fail');
  });
});
