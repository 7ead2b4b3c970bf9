import type { Repair, Unit } from '@keen-bleed/contract';
import { hasCompressor } from '../rig/hasCompressor';
import { partById } from '../rig/partList';
import type { PartRole } from '../rig/partsOf';

type Described = Parameters<typeof partById>[0] & Pick<Unit, 'chambers' | 'kind'>;

/** What work on a part brings with it: each has its own caution, shown before the work. */
export type WorkDanger =
  'chock' | 'empty-tanks' | 'cage' | 'never-open-spring' | 'heat' | 'eyes' | 'rods';

/** How a work is done where that is a walk of its own. */
export type HowTo = 'cage' | 'set-governor' | 'adjust-by-hand';

/** Work that opens a joint: all but turning a screw. */
const OPENS: ReadonlySet<Repair> = new Set<Repair>(['replaced', 'cleaned', 'reseated', 'remade']);
/** Parts with no air in them. */
const NO_AIR: ReadonlySet<PartRole> = new Set<PartRole>(['gauge']);
const HOT: ReadonlySet<PartRole> = new Set<PartRole>(['compressor', 'dryer', 'governor']);
/** Lines and valves whose delivery holds springs off. */
const SPRING_SIDE: ReadonlySet<string> = new Set([
  ...['park-line', 'spring-line', 'park-relay', 'modulating-valve'],
]);

/** A chamber with a spring brake: the rear ones of a truck, any of a trailer with springs. */
const isSpringChamber = (unit: Described, id: string, role: PartRole): boolean =>
  (role === 'chamber' || role === 'chambers') &&
  unit.chambers.some(({ springBrake }) => springBrake) &&
  (!hasCompressor(unit.kind) || id.startsWith('rear-'));

/**
 * The dangers of one work on one part [trade: repair and release; caging]. Springs are caged only where a spring chamber
 * or its line is opened: at a governor or a springless front chamber there is none.
 */
export function workDangers(unit: Described, partId: string, repair: Repair): WorkDanger[] {
  const part = partById(unit, partId);
  if (!part) return [];
  const { id, role } = part;
  const opens = OPENS.has(repair) && !NO_AIR.has(role);
  const isSprung = isSpringChamber(unit, id, role);
  const isHot = HOT.has(role) || id === 'discharge-line';
  const dangers: (WorkDanger | false)[] = [
    'chock',
    opens && 'empty-tanks',
    opens && (isSprung || SPRING_SIDE.has(id)) && 'cage',
    isSprung && 'never-open-spring',
    isHot && 'heat',
    opens && 'eyes',
    (role === 'chamber' || role === 'chambers') && 'rods',
  ];
  return dangers.filter((each) => each !== false);
}

/** What of a work is a walk of its own, step by step. */
export function howToOf(unit: Described, partId: string, repair: Repair): HowTo[] {
  const part = partById(unit, partId);
  if (!part) return [];
  const isChamber = part.role === 'chamber' || part.role === 'chambers';
  return [
    ...(workDangers(unit, partId, repair).includes('cage') ? (['cage'] as const) : []),
    ...(part.role === 'governor' && repair === 'adjusted' ? (['set-governor'] as const) : []),
    ...(isChamber && repair === 'adjusted' ? (['adjust-by-hand'] as const) : []),
  ];
}
