import fc from 'fast-check';
import type { Unit } from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { unitOf } from '../test/walk';
import type { Facing, Level, Plan } from './plan';
import { GOOD_PLAN, measured } from './planMeasures';
import { planOf } from './planOf';

const truck = unitOf('truck', '10');
const trailer = unitOf('trailer', '22');
const rigs: Readonly<Record<string, RigUnderTest>> = {
  truck: { unit: truck, towed: [] },
  'numbered truck, load-sensing': {
    unit: {
      ...truck,
      ports: 'numbers',
      chambers: truck.chambers.map((group) => ({ ...group, loadSensing: true })),
    },
    towed: [],
  },
  bus: { unit: unitOf('bus', '12'), towed: [] },
  'tractor and trailer': { unit: unitOf('tractor', '11'), towed: [trailer] },
  double: {
    unit: unitOf('tractor', '11'),
    towed: [trailer, unitOf('dolly', '23'), unitOf('trailer', '24')],
  },
  'trailer alone': { unit: trailer, towed: [] },
  'truck with everything on it': {
    unit: {
      ...truck,
      air: { dryerPurge: 'service-tank', stopLampSwitches: 'two' },
      parts: ['pre-cleaner', 'suspension', 'horn', 'wiper', 'seat', 'tyre-inflation'].map(
        (partId) => ({
          partId,
          standing: 'fitted' as const,
          foundAtMs: 1,
        }),
      ),
    },
    towed: [],
  },
};

/** The drawings of a rig: each way up, whole and unit by unit. */
const plansOf = (rig: RigUnderTest): [string, Plan][] =>
  (['up', 'left'] as const satisfies Facing[]).flatMap((facing) =>
    [
      { show: 'rig' } as Level,
      ...[rig.unit, ...rig.towed].map((_, unit): Level => ({ show: 'unit', unit })),
    ].map((level): [string, Plan] => [
      `${facing} ${JSON.stringify(level)}`,
      planOf(rig, facing, level),
    ]),
  );

describe('a rig drawn from above', () => {
  it.each(Object.keys(rigs))(
    'leads no line through a symbol, lays no name over another, and is reached everywhere by a finger: %s',
    (name) => {
      for (const [which, plan] of plansOf(rigs[name]!)) {
        const { crossingsALine, ...rest } = measured(plan);
        expect({ which, ...rest }).toEqual({ which, ...GOOD_PLAN });
        expect({ which, crosses: crossingsALine < 1 ? 'seldom' : crossingsALine }).toEqual({
          which,
          crosses: 'seldom',
        });
      }
    },
  );

  it('fits a phone held upright, whatever is coupled', () => {
    for (const name of ['truck', 'double']) {
      expect(planOf(rigs[name]!, 'up', { show: 'rig' }).width).toBeLessThanOrEqual(374);
    }
  });

  it('names tanks, valves and axles of the whole rig, and folds what is small into them', () => {
    const plan = planOf(rigs['tractor and trailer']!, 'up', { show: 'rig' });
    const named = (part: string) =>
      plan.symbols.find((symbol) => symbol.part === part)?.label?.lines.join(' ');
    expect(named('foot-valve')).toBe('foot');
    expect(named('rear-relay')).toBe('rear relay');
    expect(named('primary-tank')).toBe('prim');
    expect(plan.units[0]?.axles.map(({ label }) => label.lines[0])).toEqual([
      'front',
      'rear 1',
      'rear 2',
    ]);
    expect(plan.symbols.some(({ part }) => part === 'primary-drain')).toBe(false);
    expect(plan.symbols.find(({ part }) => part === 'primary-tank')?.folded).toContain(
      'primary-drain',
    );
    for (const { role, label } of plan.symbols) {
      if (/relay|valve$/.test(role) && role !== 'check-valve') expect(label).not.toBeNull();
    }
  });

  it('shows every part of a unit once, at its own side', () => {
    const { symbols } = planOf(rigs.truck!, 'up', { show: 'unit', unit: 0 });
    const of = (part: string) => symbols.find((symbol) => symbol.part === part)!;
    expect(new Set(symbols.map(({ key }) => key)).size).toBe(symbols.length);
    expect(of('front-chambers.1-left').box.x).toBeLessThan(of('front-chambers.1-right').box.x);
    expect(of('compressor').box.y).toBeLessThan(of('rear-relay').box.y);
    const wide = planOf(rigs.truck!, 'left', { show: 'unit', unit: 0 }).symbols;
    const at = (part: string) => wide.find((symbol) => symbol.part === part)!;
    // Front left: the vehicle's left side is at the foot.
    expect(at('compressor').box.x).toBeLessThan(at('rear-relay').box.x);
    expect(at('front-chambers.1-left').box.y).toBeGreaterThan(at('front-chambers.1-right').box.y);
  });

  it('is drawn as well of made-up units: axles, circuits, ports and parts moved about', () => {
    const madeUp = fc.record({
      front: fc.integer({ min: 1, max: 2 }),
      rear: fc.integer({ min: 1, max: 3 }),
      ports: fc.constantFrom('words' as const, 'numbers' as const),
      circuits: fc.constantFrom('dual' as const, 'single' as const),
      moved: fc.array(
        fc.record({
          partId: fc.constantFrom(
            'rear-relay',
            'primary-tank',
            'park-relay',
            'dryer',
            'anti-compounding',
          ),
          row: fc.integer({ min: 0, max: 45 }),
          column: fc.integer({ min: -2, max: 2 }),
        }),
        { maxLength: 3 },
      ),
    });
    fc.assert(
      fc.property(madeUp, ({ front, rear, ports, circuits, moved }) => {
        const unit: Unit = {
          ...truck,
          ports,
          circuits,
          chambers: [
            { type: '20', count: 2 * front, springBrake: false },
            { type: '30', count: 2 * rear, springBrake: true },
          ],
          parts: [...new Map(moved.map((each) => [each.partId, each])).values()].map(
            ({ partId, row, column }) => ({
              partId,
              standing: 'fitted' as const,
              place: { row, column },
              foundAtMs: 1,
            }),
          ),
        };
        const { crossingsALine: _few, ...rest } = measured(
          planOf({ unit, towed: [] }, 'up', { show: 'unit', unit: 0 }),
        );
        expect(rest).toEqual(GOOD_PLAN);
      }),
      { numRuns: 8 },
    );
  });
});
