import type { Unit } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { makeDrawing } from './drawing';
import { placeNotes } from './placeNotes';

const unit = (kind: Unit['kind'], number: string): Unit => ({
  id: `00000000-0000-7000-8000-0000000000${number}`,
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  number,
  name: kind,
});
const double = {
  unit: unit('tractor', '11'),
  towed: [unit('trailer', '22'), unit('dolly', '23'), unit('trailer', '24')],
};
const { places, ways, layouts } = makeDrawing().draw(double);
const at = (id: string) => places.findIndex((place) => place.id === id);

describe('the drawing of a double', () => {
  it('wears the trade’s colours: red supply, blue service, yellow park', () => {
    const circuit = (id: string) => places[at(id)]?.circuit;
    expect(circuit('primary tank')).toBe('supply');
    expect(circuit('#1 supply line')).toBe('supply');
    expect(circuit('#1 service line')).toBe('service');
    expect(circuit('rear left')).toBe('service');
    expect(circuit('rear left spring')).toBe('park');
    expect(circuit('park line')).toBe('park');
    const alone = makeDrawing().draw({ unit: unit('trailer', '22'), towed: [] }).places;
    const shop = alone.filter(({ id }) => id.startsWith('shop')).map((each) => each.circuit);
    expect(shop).toEqual(['supply', 'supply', 'service']);
  });

  it('tells of every place what it is for and what tests it', () => {
    for (const { kind } of places) {
      const { does, tests } = placeNotes[kind];
      expect(does).toMatch(/\.$/);
      expect(tests.length).toBeGreaterThan(3);
    }
    expect(placeNotes['supply tank'].does).toContain('governor');
    expect(placeNotes['shop air'].does).toContain('shop');
    expect(placeNotes['towed tank'].does).toContain('towed');
  });

  it('calls a towed unit’s parts by its number, and leaves a second group its own', () => {
    expect(places[at('#1 supply line')]?.short).toBe('22 supply line');
    expect(places[at('#3 left')]).toMatchObject({ short: '24 left', name: 'trailer 24 left' });
    expect(places[at('rear left spring')]?.short).toBe('rear left spring');
  });

  it('is the same whatever a trailer is called', () => {
    const drawn = (name: string) => {
      const towed = [{ ...unit('trailer', '22'), name }];
      const { places: all, ways: some } = makeDrawing().draw({ unit: double.unit, towed });
      return [
        all.map(({ id, circuit, isTank }) => [id, circuit, isTank]),
        some.map((way) => way.drawn),
      ];
    };
    expect(drawn('spring tank with dash and supply on service')).toEqual(drawn('trailer'));
  });

  it('runs from the compressor to the last coupler, and leaves out what a sound rig does not have', () => {
    const x = (id: string) => layouts.across.nodes[at(id)]?.x ?? NaN;
    expect(x('discharge line')).toBeLessThan(x('supply tank'));
    expect(x('supply tank')).toBeLessThan(x('primary tank'));
    expect(x('#1 supply line')).toBeLessThan(x('#3 supply line'));
    ways.forEach(({ drawn }, e) => {
      expect((layouts.across.ways[e] ?? []).length > 0).toBe(drawn);
    });
    const left = ways.filter(({ drawn, to }) => !drawn && to >= 0).map(({ id }) => id);
    expect(left).toContain('#1 supply on service coupler');
    expect(
      left.every((id) => /centre seal$| on (supply|service) coupler$|: back to | back$/.test(id)),
    ).toBe(true);
  });

  it('fits a phone held upright: each place is below the one its air comes from, a step to the right', () => {
    const { down } = layouts;
    const box = (id: string) => down.nodes[at(id)]!;
    expect(down.width).toBeLessThanOrEqual(354);
    for (const [before, after] of [
      ['discharge line', 'dryer'],
      ['dryer', 'purge volume'],
      ['supply tank', 'primary tank'],
      ['rear delivery', 'rear left'],
      ['#1 supply line', '#3 supply line'],
    ] as const) {
      expect(box(after).y).toBeGreaterThan(box(before).y);
      expect(box(after).x).toBeGreaterThan(box(before).x);
    }
    ways.forEach(({ from, to, drawn }, e) => {
      const points = down.ways[e] ?? [];
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
