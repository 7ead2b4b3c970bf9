import type { PartRecord } from '@keen-bleed/contract';
import { admitsWithUnit } from '../test/admitsWithUnit';
import { unitOf } from '../test/walk';
import { howToOf, workDangers } from './workDangers';

const truck = unitOf('truck', '10');
const trailer = unitOf('trailer', '22');
const old = unitOf('trailer', '26', { chambers: [{ type: '30', count: 4, springBrake: false }] });

describe('the cautions of a work, by part and act', () => {
  it('ask for caging only where a spring chamber or its line is opened', () => {
    const caged = (
      unit: typeof truck,
      partId: string,
      repair: 'replaced' | 'adjusted' = 'replaced',
    ) => workDangers(unit, partId, repair).includes('cage');
    for (const partId of ['rear-chambers', 'rear-chambers.1-left', 'park-line', 'park-relay'])
      expect([partId, caged(truck, partId)]).toEqual([partId, true]);
    for (const partId of ['governor', 'front-chambers', 'foot-valve', 'dryer', 'rear-relay'])
      expect([partId, caged(truck, partId)]).toEqual([partId, false]);
    expect(caged(trailer, 'chambers.1-left')).toBe(true);
    expect(caged(old, 'chambers.1-left')).toBe(false);
    // Turning an adjuster opens nothing.
    expect(caged(truck, 'rear-chambers.1-left', 'adjusted')).toBe(false);
  });

  it('never open a spring side, empty tanks before a joint, name what is hot', () => {
    expect(workDangers(truck, 'rear-chambers.1-left', 'replaced')).toEqual([
      ...['chock', 'empty-tanks', 'cage', 'never-open-spring', 'eyes', 'rods'],
    ]);
    expect(workDangers(truck, 'governor', 'adjusted')).toEqual(['chock', 'heat']);
    expect(workDangers(truck, 'discharge-line', 'remade')).toEqual([
      ...['chock', 'empty-tanks', 'heat', 'eyes'],
    ]);
    expect(workDangers(truck, 'gauge', 'replaced')).toEqual(['chock']);
  });

  it('come with how it is done where that is a walk of its own', () => {
    expect(howToOf(truck, 'rear-chambers.1-left', 'replaced')).toEqual(['cage']);
    expect(howToOf(truck, 'governor', 'adjusted')).toEqual(['set-governor']);
    expect(howToOf(truck, 'front-chambers.1-left', 'adjusted')).toEqual(['adjust-by-hand']);
    expect(howToOf(truck, 'governor', 'replaced')).toEqual([]);
  });
});

describe('an adjuster', () => {
  const wheel = (adjuster?: 'automatic' | 'manual') => {
    const record: PartRecord = {
      ...{ partId: 'rear-chambers.1-left', standing: 'fitted', foundAtMs: 1 },
      ...(adjuster ? { adjuster } : {}),
    };
    return admitsWithUnit({ ...truck, parts: [record] }, 'rear-chambers.1-left');
  };

  it('that is automatic is never adjusted as a repair [trade]', () => {
    expect(wheel('automatic')('adjusted')).toMatchObject({
      field: 'repair',
      message: expect.stringContaining('bushes, linkage, arm, drum or lining') as string,
    });
    expect(wheel('automatic')('replaced')).toBeNull();
  });

  it('that is manual is adjusted, and measured after it', () => {
    expect(wheel('manual')('adjusted')).toBeNull();
    expect(wheel()('adjusted')).toBeNull();
  });
});
