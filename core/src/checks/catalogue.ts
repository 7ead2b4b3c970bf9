import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { hasCompressor } from '../rig/hasCompressor';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import type { Fault } from '../twin/faults/fault';
import { faultsOf, partOf } from '../twin/faults/faultsOf';
import { airOf } from '../twin/network/airOf';
import { Twin } from '../twin/twin';
import type { Check } from './check';
import { airChecks } from './airChecks';
import { withCautions } from './dangers';
import { benchChecks } from './benchChecks';
import { exhaustChecks } from './exhaustChecks';
import { looks } from './looks';
import { OPENING, type Made } from './made';
import { timingChecks } from './timingChecks';
import { walkChecks } from './walkChecks';
import { wholeChecks } from './wholeChecks';

/**
 * Everything a hand, ear, eye or gauge can do on a rig, derived from its parts: what is not fitted has no check.
 *
 * @param faults what may be wrong with the rig; each check says on which of them it bears
 */
export function checksOf(rig: RigUnderTest, faults: readonly Fault[] = faultsOf(rig)): Check[] {
  const network = airOf(rig);
  const towed = !hasCompressor(rig.unit.kind);
  const made: Made = {
    rig,
    network,
    isTowedAlone: towed,
    // A tractor alone still has its trailer controls.
    tows: network.nodes.some(({ kind }) => kind === 'trailer service line'),
    parts: unitsOf(rig).map(
      (unit) => new Map(plumbingOf(unit).parts.map((part) => [part.id, part])),
    ),
  };
  const checks = [
    ...exhaustChecks(made),
    ...airChecks(made),
    ...timingChecks(made),
    ...wholeChecks(made),
    ...looks(made),
    ...walkChecks(made),
    ...benchChecks(made),
  ];
  const byPart = faultsByPart(rig, faults);
  return checks
    .filter((check) => fits(made, check))
    .map((check) => ({
      ...check,
      // A gauge is teed in by opening a fitting, whatever it is then read for.
      cautions: withCautions(
        check.tools.includes('tee') && !check.cautions.includes(OPENING)
          ? { ...check, cautions: [OPENING, ...check.cautions] }
          : check,
      ),
      bearsOn: bearing(check, byPart, faults),
    }));
}

/** A trailer alone has no engine and no dash; a rig that tows nothing has no red control to pull. */
function fits({ isTowedAlone, tows }: Made, { state }: Omit<Check, 'bearsOn'>): boolean {
  if (isTowedAlone) return state.engine === 'off' && state.id !== 'hand on';
  return tows || !(state.id === 'red out' || state.id === 'hand on');
}

function faultsByPart(rig: RigUnderTest, faults: readonly Fault[]): Map<string, string[]> {
  // A screen that only lists checks does not pay for a twin.
  if (faults.length === 0) return new Map();
  const twin = new Twin(rig);
  const byPart = new Map<string, string[]>();
  for (const fault of faults) {
    const { unit, part } = partOf(fault, twin);
    const key = `${unit} ${part}`;
    byPart.set(key, [...(byPart.get(key) ?? []), fault.id]);
  }
  return byPart;
}

/** Faults of the check's own part, and those whose place or way is the one it is done at. */
function bearing(
  { unit, part, act, doing }: Omit<Check, 'bearsOn'>,
  byPart: ReadonlyMap<string, readonly string[]>,
  faults: readonly Fault[],
): string[] {
  const at = 'place' in doing ? doing.place : 'way' in doing ? doing.way : null;
  const there = faults.filter((fault) => fault.at === at).map(({ id }) => id);
  const looked = doing.does === 'look' ? Object.keys(doing.under) : [];
  if (act === 'walk') {
    // A walk is at no part of its own: it bears on the places that it passes.
    const spots = new Set(doing.does === 'walk' ? doing.spots.map((spot) => spot.at) : []);
    return [...looked, ...faults.filter((fault) => spots.has(fault.at)).map(({ id }) => id)];
  }
  const group = part.split('.')[0] ?? part;
  return [
    ...new Set([
      ...(byPart.get(`${unit} ${part}`) ?? []),
      ...(byPart.get(`${unit} ${group}`) ?? []),
      ...there,
      ...looked,
    ]),
  ];
}
