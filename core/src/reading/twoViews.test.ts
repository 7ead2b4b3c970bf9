import type { Figure } from '@keen-bleed/contract';
import { sayHeadNumber, sayOtherView } from './twoViews';

const figure = (change: Partial<Figure>): Figure =>
  ({
    ...{
      id: 'static-leak',
      unit: 'psi/min',
      value: 1.4,
      read: 1.6,
      atMost: null,
      heads: 'as-read',
    },
    ...{ asRead: 'pass', verdict: 'cant-tell', within: 0.8, standardUncertainty: 0.2 },
    ...change,
  }) as Figure;

describe('the number that heads a figure', () => {
  it('is as read or how sure, by its rule set; a bound where there is no more; a dash where nothing was read', () => {
    expect(sayHeadNumber(figure({}), 'psi')).toBe('1.6');
    expect(sayHeadNumber(figure({ heads: 'how-sure' }), 'psi')).toBe('1.4');
    expect(sayHeadNumber(figure({ read: null }), 'psi')).toBe('1.4');
    expect(sayHeadNumber(figure({ atMost: 0.7 }), 'psi')).toBe('< 0.7');
    expect(sayHeadNumber(figure({ value: null }), 'psi')).toBe('—');
  });

  it('has the other view beside it, with its doubt at two standard deviations, and none where nothing is judged', () => {
    expect(sayOtherView(figure({}), 'psi')).toBe(
      'How sure: 1.4 psi/min ± 0.4 psi/min, within the limit 80 in 100: can’t tell yet',
    );
    expect(sayOtherView(figure({ heads: 'how-sure' }), 'psi')).toBe('As read 1.6 psi/min: pass');
    expect(sayOtherView(figure({ heads: 'how-sure', asRead: null }), 'psi')).toBeNull();
    expect(sayOtherView(figure({ value: null }), 'psi')).toBeNull();
    expect(sayOtherView(figure({ verdict: null }), 'psi')).toBeNull();
    expect(sayOtherView(figure({ atMost: 0.7, within: null }), 'psi')).toBe(
      'How sure: under 0.7 psi/min: can’t tell yet',
    );
  });
});
