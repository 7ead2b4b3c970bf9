import { newUnitDraft } from '@keen-bleed/core';
import { Twin } from '@keen-bleed/core/twin';
import { portOf } from './portOf';

const unit = (kind: 'tractor' | 'trailer', number: string) => ({
  id: number,
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  ports: 'numbers' as const,
  number,
  name: kind,
});

describe('numbers of ports', () => {
  // [std: ISO 6786, value from memory]
  it('are the foot valve’s 21 and 22, and the trailer control valve’s 41, 42 and 43', () => {
    expect(portOf('rear signal')).toMatch(/^21/);
    expect(portOf('front signal')).toMatch(/^22/);
    expect(portOf('trailer foot signal')).toBe('41 · 42');
    expect(portOf('hand brake line')).toContain('43');
  });

  it('stand at every place that a device is joined to; a chamber has none', () => {
    const twin = new Twin({ unit: unit('tractor', '11'), towed: [unit('trailer', '22')] });
    const without = twin.system.network.nodes
      .map(({ name }) => name)
      .filter((name) => portOf(name) === null);
    for (const name of without) expect(name).toMatch(/left|right|rear s|spring line$/);
  });
});
