import type { Unit } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { makeDrawing } from './drawing';

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
const drawing = makeDrawing();
const { places } = drawing.draw(double);
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
    const alone = drawing.draw({ unit: unit('trailer', '22'), towed: [] }).places;
    const shop = alone.filter(({ id }) => id.startsWith('shop')).map((each) => each.circuit);
    expect(shop).toEqual(['supply', 'supply', 'service']);
  });

  it('is bound to the air it shows: tanks to their pressure, valves to their state, lines to what flows in them', () => {
    const { plan, air } = drawing.plan(double, 'up', { show: 'rig' });
    const symbol = (key: string) => air.symbols[plan.symbols.findIndex((each) => each.key === key)];
    expect(symbol('0 primary-tank')?.place).toBe(at('primary tank'));
    expect(symbol('1 tank')?.place).toBe(at('#1 tank'));
    expect(symbol('0 rear-relay')?.device).toBe('rear relay');
    expect(symbol('1 relay')?.device).toBe('#1 relay');
    expect(symbol('0 park-control')?.latch).toBe('park valve');
    expect(symbol('0 rear-chambers.1-left')?.place).toBe(at('rear left'));
    const hoses = plan.lines.flatMap((line, n) =>
      line.title.startsWith('Service hose') ? [air.lines[n]] : [],
    );
    expect(hoses.length).toBeGreaterThan(0);
    for (const hose of hoses) expect(hose?.ways.length).toBeGreaterThan(0);
  });

  it('explains a relay with its numbers on this rig, and what the axle would lack without it', () => {
    const { steps, lag } = drawing.explain(
      { unit: unit('truck', '12'), towed: [] },
      0,
      'rear-relay',
    );
    expect(steps.map(({ state }) => state)).toEqual(['off', 'on', 'hold', 'off']);
    const held = steps[2]?.ports.map(({ title, psi }) => [title, Math.round(psi)]);
    expect(held).toContainEqual(['Delivery', 30]);
    expect(lag!.without).toBeGreaterThan(1.3 * lag!.withIt);
  });
});
