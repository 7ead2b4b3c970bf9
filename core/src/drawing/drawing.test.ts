import fc from 'fast-check';
import type { Unit } from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { unitOf } from '../test/walk';
import { overlap } from './labels';
import type { Box, Facing, Level, Plan } from './plan';
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

/** What is measured of a drawing. */
function measured({ symbols, lines, units, width, height }: Plan) {
  const inside = ({ x, y }: { x: number; y: number }, box: Box) =>
    x > box.x + 0.5 &&
    x < box.x + box.width - 0.5 &&
    y > box.y + 0.5 &&
    y < box.y + box.height - 0.5;
  const labels = [
    ...symbols.flatMap(({ label, role }) => (label && role !== 'tank' ? [label] : [])),
    ...units.flatMap(({ axles }) => axles.map(({ label }) => label)),
  ];
  const segments = lines.map(({ points }) =>
    points.slice(1).map((to, n) => ({ from: points[n]!, to })),
  );
  const through = lines.flatMap((line, n) =>
    segments[n]!.flatMap(({ from, to }) =>
      symbols
        .filter(({ box }) => {
          const steps = Math.max(
            2,
            Math.ceil((Math.abs(to.x - from.x) + Math.abs(to.y - from.y)) / 2),
          );
          return Array.from({ length: steps - 1 }, (_, k) => (k + 1) / steps).some((t) =>
            inside({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t }, box),
          );
        })
        .map(({ key }) => `${line.key} through ${key}`),
    ),
  );
  // Where lines of one air share their way, what crosses it crosses once.
  const crossings = new Set(
    segments.flatMap((some, n) =>
      segments
        .slice(n + 1)
        .flatMap((others, m) =>
          lines[n]!.net === lines[n + 1 + m]!.net
            ? []
            : some.flatMap((one) => others.flatMap((other) => cross(one, other) ?? [])),
        ),
    ),
  ).size;
  const overlapping = (boxes: readonly Box[]) =>
    boxes.flatMap((one, n) => boxes.slice(n + 1).filter((other) => overlap(one, other))).length;
  return {
    through,
    forced: lines.filter(({ forced }) => forced).length,
    labelsOverLabels: overlapping(labels),
    labelsOverSymbols: labels.flatMap((label) => symbols.filter(({ box }) => overlap(label, box)))
      .length,
    targetsOverTargets: overlapping(symbols.map(({ target }) => target)),
    smallTargets: symbols.filter(({ target }) => target.width < 44 || target.height < 44).length,
    outside: symbols.filter(
      ({ box }) =>
        box.x < 0 || box.y < 0 || box.x + box.width > width || box.y + box.height > height,
    ).length,
    askew: lines.filter((_, n) =>
      segments[n]!.some(({ from, to }) => from.x !== to.x && from.y !== to.y),
    ).length,
    crossingsALine: crossings / Math.max(1, lines.length),
  };
}

interface Segment {
  from: { x: number; y: number };
  to: { x: number; y: number };
}

/** Where two segments at right angles cross between their ends; null where they do not. */
function cross(a: Segment, b: Segment): string | null {
  const flat = (s: Segment) => s.from.y === s.to.y;
  if (flat(a) === flat(b)) return null;
  const [across, down] = flat(a) ? [a, b] : [b, a];
  const [left, right] = [across.from.x, across.to.x].sort((x, y) => x - y);
  const [top, foot] = [down.from.y, down.to.y].sort((x, y) => x - y);
  const [x, y] = [down.from.x, across.from.y];
  return x > left! && x < right! && y > top! && y < foot! ? `${x} ${y}` : null;
}

const GOOD = {
  through: [],
  forced: 0,
  labelsOverLabels: 0,
  labelsOverSymbols: 0,
  targetsOverTargets: 0,
  smallTargets: 0,
  outside: 0,
  askew: 0,
};

describe('a rig drawn from above', () => {
  it.each(Object.keys(rigs))(
    'leads no line through a symbol, lays no name over another, and is reached everywhere by a finger: %s',
    (name) => {
      for (const [which, plan] of plansOf(rigs[name]!)) {
        const { crossingsALine, ...rest } = measured(plan);
        expect({ which, ...rest }).toEqual({ which, ...GOOD });
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
        expect(rest).toEqual(GOOD);
      }),
      { numRuns: 8 },
    );
  });
});
