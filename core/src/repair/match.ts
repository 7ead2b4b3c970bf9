import type { PartData, PressureUnit, Unit, UnitDraft } from '@keen-bleed/contract';
import { partById } from '../rig/partList';
import { chamberAt } from '../rig/chamberAt';
import type { PartRole } from '../rig/partsOf';
import { usualVariant } from '../rig/plumbing/plumbingOf';
import { variantsOf } from '../rig/plumbing/variants';
import { fromPsi } from '../units/pressure';
import { rounded } from '../units/say';

type Described = Pick<Unit, keyof UnitDraft>;

/** What a replacement has to match, field by field; a value that nobody has read yet is null. */
export interface Want {
  field: keyof PartData;
  title: string;
  value: PartData[keyof PartData] | null;
  /** How far a number may be off. */
  tolerance: number | null;
  /** Why it matters, in a line. */
  why: string;
}

/** Crack pressures of relays on one vehicle differ by this at most, psi [trade]. */
const CRACK_PSI = 1;
/** Set points of controls, governors and switches [common practice, no source]. */
const SET_PSI = 3;
/** A hose is as long as the one it replaces, within this [common practice, no source]. */
const LENGTH_MM = 25;
/** What a relay cracks at where nobody has read it off, psi: the usual of the twin. */
const USUAL_CRACK_PSI = 4;

const SET_WHY: Partial<Record<PartRole, string>> = {
  relay: 'Axles brake together only where their relays crack alike.',
  'relay-emergency': 'Axles brake together only where their relays crack alike.',
  governor: 'It sets cut-out, and with it cut-in.',
  'park-control': 'It sets where the park control pops out.',
  'trailer-supply-control': 'It sets where the trailer is cut off.',
  'hand-brake-valve': 'It sets where the springs come on.',
  'low-air-switch': 'It sets where the driver is warned.',
  'stop-lamp-switch': 'It sets where the lamps come on.',
  'safety-valve': 'It sets where the supply tank is relieved.',
  'tractor-protection': 'It sets where the tractor keeps its own air.',
};

/** What is known of a part that is fitted, from what was read off it and from the unit's own figures. */
export function knownOf(unit: Described, partId: string): PartData {
  const part = partById(unit, partId);
  if (!part) return {};
  const { role } = part;
  const record = unit.parts?.find((each) => each.partId === partId);
  const chamber = chamberAt(unit, partId);
  const variant = record?.variant ?? usualVariant(unit, part);
  const setPsi =
    record?.setPsi ??
    (role === 'governor' ? unit.governor?.cutOutPsi : undefined) ??
    (role === 'relay' || role === 'relay-emergency' ? USUAL_CRACK_PSI : undefined);
  return {
    ...(record?.number === undefined ? {} : { number: record.number }),
    ...(record?.thread === undefined ? {} : { thread: record.thread }),
    ...(setPsi === undefined ? {} : { setPsi }),
    ...(variant == null ? {} : { variant }),
    ...(chamber ? { chamberType: chamber.group.type } : {}),
    ...(record?.stroke === undefined ? {} : { stroke: record.stroke }),
  };
}

/**
 * What a replacement of a part must match on this unit. Relays crack alike within 1 psi [trade]; what nobody has read
 * off the old part stands with null, to be looked up.
 */
export function wantsOf(unit: Described, partId: string): Want[] {
  const part = partById(unit, partId);
  if (!part) return [];
  const known = knownOf(unit, partId);
  const { role } = part;
  const want = (
    field: keyof PartData,
    title: string,
    why: string,
    tolerance: number | null = null,
  ): Want => ({ field, title, why, tolerance, value: known[field] ?? null });
  const isRelay = role === 'relay' || role === 'relay-emergency';
  const setWhy = SET_WHY[role];
  const isChamber = role === 'chamber' || role === 'chambers';
  const wants: (Want | false)[] = [
    setWhy !== undefined &&
      want(
        'setPsi',
        isRelay ? 'Crack pressure' : role === 'governor' ? 'Cut-out' : 'Set pressure',
        setWhy,
        isRelay ? CRACK_PSI : SET_PSI,
      ),
    isChamber && want('chamberType', 'Chamber type', 'Both sides of an axle push alike.'),
    isChamber && want('stroke', 'Stroke', 'Long and standard stroke never share an axle.'),
    variantsOf(part).length > 0 &&
      role !== 'compressor' &&
      want('variant', 'Kind', 'Another kind is plumbed otherwise.'),
    role === 'line' &&
      want('lengthMm', 'Length', 'Too short it pulls, too long it chafes.', LENGTH_MM),
    want('thread', 'Thread', 'Another thread wants an adapter.'),
    want('number', 'Number on it', 'By this the shop orders it.'),
  ];
  return wants.filter((each) => each !== false);
}

/** Fields of which another value is no mismatch, and one that an adapter makes good. */
const NEVER: ReadonlySet<keyof PartData> = new Set(['number']);
const ADAPTED: ReadonlySet<keyof PartData> = new Set(['thread']);

/**
 * Why a part that is offered does not match the one it replaces, each in a sentence; empty where it does, as far as
 * both are known.
 *
 * @param adapter what makes another thread good, if anything
 * @param sayIn the unit that pressures are said in
 */
export function mismatches(
  unit: Described,
  partId: string,
  offered: PartData,
  { adapter, sayIn = 'psi' }: { adapter?: string | undefined; sayIn?: PressureUnit } = {},
): string[] {
  return wantsOf(unit, partId).flatMap(({ field, title, value, tolerance, why }) => {
    const given = offered[field];
    if (value === null || given === undefined || NEVER.has(field)) return [];
    if (ADAPTED.has(field) && adapter !== undefined) return [];
    if (typeof value === 'number' && typeof given === 'number') {
      const by = tolerance ?? 0;
      if (Math.abs(value - given) <= by + 1e-9) return [];
      const say = (each: number) => sayPartNumber(field, each, sayIn);
      return [`${title}: ${say(given)} offered, ${say(value)} ± ${say(by)} wanted. ${why}`];
    }
    const same = String(value).trim().toLowerCase() === String(given).trim().toLowerCase();
    return same ? [] : [`${title}: ${given} offered, ${value} wanted. ${why}`];
  });
}

/** Decimals that a small pressure is said with. */
const PLACES = { psi: 1, kPa: 0, bar: 2 } as const;

/** A number of a part in words: a pressure in the unit asked for, a length in millimetres. */
export const sayPartNumber = (field: keyof PartData, value: number, unit: PressureUnit): string =>
  field === 'lengthMm'
    ? `${rounded(value, 0)} mm`
    : `${rounded(fromPsi(value, unit), PLACES[unit])} ${unit}`;
