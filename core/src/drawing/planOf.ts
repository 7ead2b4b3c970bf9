import { hasCompressor } from '../rig/hasCompressor';
import type { PlumbedPart } from '../rig/plumbing/plumbing';
import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import { unitTitle } from '../rig/unitTitle';
import { foldedInto } from './folding';
import { placedLabel } from './labels';
import { netsOf } from './nets';
import type { Box, Facing, Level, Plan, PlanLine, PlanSymbol, PlanUnit } from './plan';
import { slotsOf, type Slot } from './placing';
import { Router, type Wanted } from './routing';
import { shortTitle } from './shortTitles';
import { BETWEEN_UNITS, HEAD, LABEL, PITCH, symbolSize, TARGET } from './sizes';

/** Columns from the left wheels to the right ones. */
const COLUMNS = 7;
/** Across the frame rails, in columns from the middle. */
const RAIL_AT = 0.62;
const RAIL = 7;
const TYRE = { across: 20, along: 44 } as const;
const MARGIN = 4;
/** Width of a letter of a unit's title, px. */
const PER_LETTER_OF_TITLE = 7.6;

export const keyOf = (unit: number, part: string): string => `${unit} ${part}`;

/** A unit with its parts in their slots, and what is folded into what. */
interface Placed {
  unit: number;
  title: string;
  powered: boolean;
  parts: readonly PlumbedPart[];
  shown: readonly PlumbedPart[];
  host: ReadonlyMap<string, string>;
  slots: ReadonlyMap<string, Slot>;
  rows: number;
  lines: ReturnType<typeof plumbingOf>['lines'];
}

function placed(rig: RigUnderTest, level: Level): Placed[] {
  return unitsOf(rig).flatMap((unit, at): Placed[] => {
    if (level.show === 'unit' && level.unit !== at) return [];
    const { parts, lines } = plumbingOf(unit);
    // An axle's chambers are drawn wheel by wheel.
    const drawn = parts.filter(({ role }) => role !== 'chambers');
    const host =
      level.show === 'rig' ? foldedInto(drawn) : new Map(drawn.map(({ id }) => [id, id] as const));
    const shown = drawn.filter(({ id }) => host.get(id) === id);
    const slots = slotsOf(shown);
    const rows = 1 + Math.max(0, ...[...slots.values()].map(({ row }) => row));
    return [
      {
        unit: at,
        title: unitTitle(unit),
        powered: hasCompressor(unit.kind),
        parts: drawn,
        shown,
        host,
        slots,
        rows,
        lines,
      },
    ];
  });
}

/** Turns lengths along and across the vehicle into places on the drawing. */
class Paper {
  readonly width: number;
  readonly height: number;

  constructor(
    private readonly facing: Facing,
    private readonly along: number,
    private readonly across = COLUMNS * PITCH[facing].across + 2 * MARGIN,
  ) {
    this.width = facing === 'up' ? across : along;
    this.height = facing === 'up' ? along : across;
  }

  /** A box by its middle along the vehicle and its column, and its size. */
  box(along: number, column: number, size: { across: number; along: number }): Box {
    const across = this.across / 2 + column * PITCH[this.facing].across;
    return this.facing === 'up'
      ? {
          x: across - size.across / 2,
          y: along - size.along / 2,
          width: size.across,
          height: size.along,
        }
      : {
          x: along - size.along / 2,
          // Front left: the vehicle's left side is at the foot.
          y: this.across - across - size.across / 2,
          width: size.along,
          height: size.across,
        };
  }
}

/**
 * A rig, or one of its units with every part, seen from above and ready to be drawn: each part at its place by row and
 * side, lines at right angles around them, names upright where nothing is in their way. The same rig gives the same
 * drawing.
 */
export function planOf(rig: RigUnderTest, facing: Facing, level: Level): Plan {
  const units = placed(rig, level);
  const pitch = PITCH[facing].along;
  const starts: number[] = [];
  let along = 0;
  for (const { rows } of units) {
    along += HEAD;
    starts.push(along);
    along += rows * pitch + BETWEEN_UNITS;
  }
  const paper = new Paper(facing, along - BETWEEN_UNITS + 12);
  const symbols: PlanSymbol[] = units.flatMap((unit, n) =>
    symbolsOf(unit, starts[n]!, paper, pitch),
  );
  const chassis = units.map((unit, n) => unitOf(unit, starts[n]!, paper, pitch, facing));
  const named = withLabels(units, symbols, chassis, paper);
  const lines = linesOf(units, named, chassis, paper);
  return {
    facing,
    width: paper.width,
    height: paper.height,
    units: chassis,
    symbols: named,
    lines,
  };
}

const alongOf = (start: number, row: number, pitch: number): number => start + (row + 0.5) * pitch;

function symbolsOf(
  { unit, shown, parts, host, slots }: Placed,
  start: number,
  paper: Paper,
  pitch: number,
): PlanSymbol[] {
  return shown.map((part): PlanSymbol => {
    const { row, column } = slots.get(part.id)!;
    const at = alongOf(start, row, pitch);
    const size = symbolSize(part);
    const reach = { across: Math.max(TARGET, size.across), along: Math.max(TARGET, size.along) };
    return {
      key: keyOf(unit, part.id),
      unit,
      part: part.id,
      role: part.role,
      title: part.title,
      box: paper.box(at, column, size),
      target: paper.box(at, column, reach),
      label: null,
      folded: parts
        .filter(({ id }) => id !== part.id && host.get(id) === part.id)
        .map(({ id }) => id),
      known: part.known,
      side: column < 0 ? 'left' : column > 0 ? 'right' : 'centre',
      hasSpring: part.wheel !== null && part.springBrake,
    };
  });
}

function unitOf(
  { unit, title, powered, shown, slots, rows }: Placed,
  start: number,
  paper: Paper,
  pitch: number,
  facing: Facing,
): PlanUnit {
  const length = rows * pitch;
  const middle = start + length / 2;
  const axleRows = [
    ...new Set(shown.flatMap(({ id, wheel }) => (wheel ? [slots.get(id)!.row] : []))),
  ].sort((a, b) => a - b);
  const across = PITCH[facing].across;
  const body = { across: (COLUMNS - 2) * across, along: length };
  const rail = (side: number) =>
    paper.box(middle, side * RAIL_AT, { across: RAIL, along: length - 16 });
  const firstAxle = axleRows[0] ?? 2;
  const cabLength = (firstAxle + 0.45) * pitch;
  const head = paper.box(start - HEAD / 2, -3, { across: across, along: HEAD });
  return {
    unit,
    title,
    box: paper.box(middle, 0, body),
    cab: powered
      ? paper.box(start + cabLength / 2, 0, { across: 5 * across, along: cabLength })
      : null,
    rails: [rail(-1), rail(1)],
    axles: axleRows.map((row) => {
      const at = alongOf(start, row, pitch);
      const [left, right] = [
        paper.box(at, -3, { across: 0, along: 0 }),
        paper.box(at, 3, { across: 0, along: 0 }),
      ];
      const wheel = paper.box(at, -3, TYRE);
      const words = axleTitle(shown, slots, row, powered);
      const width = words.length * LABEL.perLetter;
      return {
        from: { x: left.x, y: left.y },
        to: { x: right.x, y: right.y },
        label: {
          lines: [words],
          width,
          height: LABEL.line,
          x: Math.max(1, wheel.x + wheel.width / 2 - width / 2),
          y: wheel.y + wheel.height + 1,
        },
      };
    }),
    wheels: shown.flatMap(({ id, wheel }) =>
      wheel
        ? [
            paper.box(
              alongOf(start, slots.get(id)!.row, pitch),
              wheel.side === 'left' ? -3 : 3,
              TYRE,
            ),
          ]
        : [],
    ),
    titleAt: facing === 'up' ? { x: head.x, y: head.y + 18 } : { x: head.x + head.width, y: 14 },
  };
}

/** What people call an axle: by its end, and its number where that end has several. */
function axleTitle(
  shown: readonly PlumbedPart[],
  slots: ReadonlyMap<string, Slot>,
  row: number,
  powered: boolean,
): string {
  const wheels = shown.filter(({ wheel }) => wheel !== null);
  const end = (part: PlumbedPart) =>
    part.id.startsWith('front-') ? 'front' : powered ? 'rear' : 'axle';
  const here = wheels.find(({ id }) => slots.get(id)?.row === row);
  if (!here) return '';
  const several = new Set(
    wheels.filter((part) => end(part) === end(here)).map(({ wheel }) => wheel?.axle),
  ).size;
  return several > 1 || !powered ? `${end(here)} ${(here.wheel?.axle ?? 0) + 1}` : end(here);
}

/** Names of parts: the most important first, so that they are named where there is room for one only. */
function withLabels(
  units: readonly Placed[],
  symbols: readonly PlanSymbol[],
  chassis: readonly PlanUnit[],
  paper: Paper,
): PlanSymbol[] {
  const byKey = new Map(
    units.flatMap(({ unit, parts }) => parts.map((part) => [keyOf(unit, part.id), part] as const)),
  );
  const taken: Box[] = [
    ...symbols.map(({ box }) => box),
    ...chassis.flatMap(({ wheels, axles }) => [...wheels, ...axles.map(({ label }) => label)]),
  ];
  const rank = ({ role }: PlanSymbol) => (isNamedFirst(role) ? 0 : 1);
  const order = [...symbols].sort((a, b) => rank(a) - rank(b));
  const labels = new Map<string, PlanSymbol['label']>();
  for (const symbol of order) {
    const part = byKey.get(symbol.key)!;
    if (symbol.role === 'tank') {
      // A tank has its name inside.
      labels.set(symbol.key, { ...symbol.box, lines: shortTitle(part) });
      continue;
    }
    const lines = isUnnamed(symbol.role) ? [] : shortTitle(part);
    const label = placedLabel(lines, symbol.box, taken, paper);
    if (label) taken.push(label);
    labels.set(symbol.key, label);
  }
  return symbols.map((symbol) => ({ ...symbol, label: labels.get(symbol.key) ?? null }));
}

/** Told by their symbol and what they hang on; the list names them. */
const isUnnamed = (role: PlanSymbol['role']): boolean =>
  role === 'line' ||
  role === 'drain' ||
  role === 'check-valve' ||
  role === 'chamber' ||
  role === 'safety-valve';

const isNamedFirst = (role: PlanSymbol['role']): boolean =>
  /valve|relay|control|quick|protection|sensing/.test(role);

interface Strand extends Wanted {
  line: Omit<PlanLine, 'points' | 'forced' | 'net'>;
  length: number;
}

function linesOf(
  units: readonly Placed[],
  symbols: readonly PlanSymbol[],
  chassis: readonly PlanUnit[],
  paper: Paper,
): PlanLine[] {
  const boxes = new Map(symbols.map(({ key, box }) => [key, box]));
  const labels = symbols.flatMap(({ label, role }) => (label && role !== 'tank' ? [label] : []));
  const wheels = chassis.flatMap((unit) => [
    ...unit.wheels,
    ...unit.axles.map(({ label }) => label),
    {
      x: unit.titleAt.x,
      y: unit.titleAt.y - LABEL.size,
      width: unit.title.length * PER_LETTER_OF_TITLE,
      height: LABEL.line,
    },
  ]);
  const router = new Router(paper.width, paper.height, boxes, [...labels, ...wheels]);
  for (const { axles } of chassis) for (const { from, to } of axles) router.axleAt(from, to);
  const strands = [...units.flatMap((unit) => strandsOf(unit, boxes)), ...couplings(units, boxes)];
  return strands
    .sort((a, b) => a.length - b.length)
    .map(({ line, ...wanted }): PlanLine => ({
      ...line,
      net: wanted.net,
      ...router.lead(wanted),
    }));
}

const far = (a: Box, b: Box): number =>
  Math.abs(a.x + a.width / 2 - b.x - b.width / 2) +
  Math.abs(a.y + a.height / 2 - b.y - b.height / 2);

/** Lines of one unit between what is drawn: those inside a folded group are not seen, and two of one air are one. */
function strandsOf(
  { unit, parts, lines, host }: Placed,
  boxes: ReadonlyMap<string, Box>,
): Strand[] {
  const nets = netsOf(parts, lines);
  const seen = new Set<string>();
  return lines.flatMap((line): Strand[] => {
    const [from, to] = [host.get(line.from.part), host.get(line.to.part)];
    if (from === undefined || to === undefined || from === to) return [];
    const net = `${unit} ${nets.get(line.id) ?? line.id}`;
    const pair = `${[from, to].sort().join(' ')} ${line.circuit}`;
    if (seen.has(pair)) return [];
    seen.add(pair);
    const [a, b] = [keyOf(unit, from), keyOf(unit, to)];
    return [
      {
        net,
        from: a,
        to: b,
        length: far(boxes.get(a)!, boxes.get(b)!),
        line: {
          key: keyOf(unit, line.id),
          unit,
          line: line.id,
          title: line.title,
          circuit: line.circuit,
          from: line.from.part,
          to: line.to.part,
          moves: line.moves,
        },
      },
    ];
  });
}

/** The hoses between units: from what hands air on at the rear of one to the couplers of the next. */
function couplings(units: readonly Placed[], boxes: ReadonlyMap<string, Box>): Strand[] {
  return units.slice(1).flatMap((behind, n): Strand[] => {
    const front = units[n]!;
    return (['supply', 'service'] as const).flatMap((circuit): Strand[] => {
      const rear = [`${circuit}-cock`, `trailer-${circuit}-line`].find((id) => front.host.has(id));
      const coupler = `${circuit}-coupler`;
      const [a, b] = [
        keyOf(front.unit, front.host.get(rear ?? '') ?? ''),
        keyOf(behind.unit, behind.host.get(coupler) ?? ''),
      ];
      if (!boxes.has(a) || !boxes.has(b)) return [];
      return [
        {
          net: `${behind.unit} ${circuit} hose`,
          from: a,
          to: b,
          length: 0,
          line: {
            key: `${behind.unit} hose ${circuit}`,
            unit: behind.unit,
            line: null,
            title: circuit === 'supply' ? 'Red hose' : 'Blue hose',
            circuit,
            from: rear ?? '',
            to: coupler,
            moves: true,
          },
        },
      ];
    });
  });
}
