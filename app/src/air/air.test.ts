import type { Unit } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { Twin } from '@keen-bleed/core/twin';
import { circuitOf, isDrawn } from './circuitOf';
import { layOut } from './layOut';
import { outline } from './outline';
import { partNote } from './partNote';
import { shortName } from './PlaceWords';

const unit = (kind: Unit['kind'], number: string): Unit => ({
  id: `00000000-0000-7000-8000-0000000000${number}`,
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  number,
  name: kind,
});
const { network } = new Twin({
  unit: unit('tractor', '11'),
  towed: [unit('trailer', '22'), unit('dolly', '23'), unit('trailer', '24')],
}).system;

describe('the drawing of a double', () => {
  it('wears the trade’s colours: red supply, blue service, yellow park', () => {
    expect(circuitOf('primary tank')).toBe('supply');
    expect(circuitOf('supply line')).toBe('supply');
    expect(circuitOf('service line')).toBe('service');
    expect(circuitOf('rear left')).toBe('service');
    expect(circuitOf('shop hose')).toBe('supply');
    expect(circuitOf('shop service hose')).toBe('service');
    expect(circuitOf('rear left spring')).toBe('park');
    expect(circuitOf('park line')).toBe('park');
  });

  it('tells of every place what it is for and what tests it', () => {
    for (const { role } of network.nodes) {
      const { does, tests } = partNote(role);
      expect(does).toMatch(/\.$/);
      expect(tests.length).toBeGreaterThan(3);
    }
    expect(partNote('supply tank').does).toContain('governor');
    expect(partNote('shop air').does).toContain('shop');
    expect(partNote('tank').does).toContain('towed');
  });

  it('calls a towed unit’s parts by its number, and leaves a second group its own', () => {
    expect(shortName('Box 2 axle 31 supply line', 'supply line')).toBe('31 supply line');
    expect(shortName('Box 31 2 left', '2 left')).toBe('31 2 left');
    expect(shortName('rear 2 left spring', 'rear 2 left spring')).toBe('rear 2 left spring');
  });

  it('is the same whatever a trailer is called', () => {
    const odd = new Twin({
      unit: unit('tractor', '11'),
      towed: [{ ...unit('trailer', '22'), name: 'spring tank with dash and supply on service' }],
    }).system.network;
    const plain = new Twin({ unit: unit('tractor', '11'), towed: [unit('trailer', '22')] }).system
      .network;
    expect(odd.nodes.map(({ role }) => role)).toEqual(plain.nodes.map(({ role }) => role));
    expect(odd.elements.map(({ name }) => isDrawn(name))).toEqual(
      plain.elements.map(({ name }) => isDrawn(name)),
    );
  });

  it('runs from the compressor to the last coupler, and leaves out what a sound rig does not have', () => {
    const names = network.nodes.map(({ name }) => name);
    const layout = layOut(names, network.elements);
    const x = (name: string) => layout.nodes[names.indexOf(name)]?.x ?? NaN;
    expect(x('discharge line')).toBeLessThan(x('supply tank'));
    expect(x('supply tank')).toBeLessThan(x('primary tank'));
    expect(x('trailer 22 supply line')).toBeLessThan(x('trailer 24 supply line'));
    network.elements.forEach(({ name, from, to }, e) => {
      const drawn = from >= 0 && to >= 0 && isDrawn(name);
      expect((layout.ways[e] ?? []).length > 0).toBe(drawn);
    });
  });

  it('fits a phone held upright: each place is below the one its air comes from, a step to the right', () => {
    const names = network.nodes.map(({ name }) => name);
    const down = outline(layOut(names, network.elements), network.elements);
    const box = (name: string) => down.nodes[names.indexOf(name)]!;
    expect(down.width).toBeLessThanOrEqual(354);
    for (const [before, after] of [
      ['discharge line', 'dryer'],
      ['dryer', 'purge volume'],
      ['supply tank', 'primary tank'],
      ['rear delivery', 'rear left'],
      ['trailer 22 supply line', 'trailer 24 supply line'],
    ] as const) {
      expect(box(after).y).toBeGreaterThan(box(before).y);
      expect(box(after).x).toBeGreaterThan(box(before).x);
    }
    network.elements.forEach(({ name, from, to }, e) => {
      const points = down.ways[e] ?? [];
      const drawn = from >= 0 && to >= 0 && isDrawn(name);
      expect(points).toHaveLength(drawn ? 3 : 0);
      if (!drawn) return;
      // It leaves one of its places at the bottom and ends at an edge of the other.
      const [upper, lower] = [down.nodes[from]!, down.nodes[to]!].sort((a, b) => a.y - b.y);
      expect(points[0]!.y).toBe(upper!.y + upper!.height);
      const end = points[2]!;
      const { x, y, width } = lower!;
      expect(end.x === x || end.x === x + width || end.y === y).toBe(true);
    });
  });
});
