import { Twin } from '@keen-bleed/core/twin';
import { madeUpUnit } from '../test/madeUpUnit';
import { portOf } from './portOf';

const ports = 'numbers';

describe('numbers of ports', () => {
  // [std: ISO 6786, value from memory]
  it('are the foot valve’s 21 and 22, and the trailer control valve’s 41, 42 and 43', () => {
    expect(portOf('rear signal')).toMatch(/^21/);
    expect(portOf('front signal')).toMatch(/^22/);
    expect(portOf('trailer foot signal')).toBe('41 · 42');
    expect(portOf('hand brake line')).toContain('43');
  });

  it('stand at every place that a device is joined to; a chamber has none', () => {
    const twin = new Twin({
      unit: madeUpUnit('tractor', { ports }),
      towed: [madeUpUnit('trailer', { ports, number: '22' })],
    });
    const without = twin.system.network.nodes
      .filter(({ name, role }) => portOf(role, name !== role) === null)
      .map(({ role }) => role);
    expect(without).toContain('spring line');
    expect(portOf('spring line')).toBe('2 · 12');
    for (const role of without) expect(role).toMatch(/left|right|rear s|spring line$/);
  });
});
