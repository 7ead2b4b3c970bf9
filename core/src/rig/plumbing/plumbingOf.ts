import type { LineRecord, PartRecord, Unit, UnitDraft } from '@keen-bleed/contract';
import { hasCompressor } from '../hasCompressor';
import { axlesOf, groupId, optionalParts, partsOf, wheelsOf, type Part } from '../partsOf';
import { checkPlumbing } from './checkPlumbing';
import {
  withoutIt,
  type PartPlace,
  type PlumbedLine,
  type PlumbedPart,
  type Plumbing,
  type PortAt,
  type PlumbingProblem,
} from './plumbing';
import { portsOf } from './ports';
import { usualLines } from './usualLines';
import { axleRow, POWERED, TOWED, wheelPlace } from './usualPlaces';

type Described = Pick<Unit, keyof UnitDraft>;

/**
 * The parts and lines of a unit: the usual ones of its kind, with what was found of each. A part that was found not to
 * be fitted is not there; one a unit cannot be without stays, and is told as a problem.
 */
export function plumbingOf(unit: Described): Plumbing {
  const records = new Map((unit.parts ?? []).map((record) => [record.partId, record]));
  const found = optionalParts(unit).filter(({ id }) => records.get(id)?.standing === 'fitted');
  const listed = [...partsOf(unit), ...found];
  const isOut = ({ id, role }: Part) =>
    records.get(id)?.standing === 'not-fitted' && withoutIt(role) !== 'needed';
  const wheels = wheelsById(unit);
  const variants = new Map(
    listed.flatMap((part) => {
      const variant = records.get(part.id)?.variant ?? usualVariant(unit, part);
      return variant === null ? [] : [[part.id, variant] as const];
    }),
  );
  const parts = listed
    .filter((part) => !isOut(part))
    .map((part): PlumbedPart => {
      const record = records.get(part.id);
      return {
        ...part,
        place: placeOf(unit, part, record, wheels.get(part.id) ?? null),
        known: !record ? 'usual' : record.standing === 'not-known' ? 'not known' : 'seen',
        setPsi: record?.setPsi ?? null,
        variant: variants.get(part.id) ?? null,
        wheel: wheels.get(part.id) ?? null,
        springBrake: unit.chambers[wheels.get(part.id)?.group ?? -1]?.springBrake ?? false,
      };
    });
  const usual = usualLines(unit, listed, variants);
  const bridged = withoutParts(usual, listed.filter(isOut));
  const lines = asFound(bridged, unit.lines ?? [], parts);
  const missing = listed
    .filter(
      ({ id, role }) => records.get(id)?.standing === 'not-fitted' && withoutIt(role) === 'needed',
    )
    .map(({ id, title }): PlumbingProblem => ({
      at: id,
      what: 'needed',
      text: `${title}: such a unit cannot work without it. Say fitted, or not known.`,
    }));
  const problems = [...missing, ...checkPlumbing(unit, parts, lines)];
  return { parts, lines, problems };
}

/** What kind of its role a part usually is on a unit; null where its role says it all. */
export const usualVariant = ({ air }: Pick<Described, 'air'>, { role }: Part): string | null =>
  role === 'dryer' && air?.dryerPurge === 'service-tank' ? 'service-tank' : null;

/** Every wheel's chamber by its id. */
function wheelsById({ kind, chambers }: Described): Map<string, NonNullable<PlumbedPart['wheel']>> {
  const { front, rear } = axlesOf(chambers);
  const ends = hasCompressor(kind)
    ? ([
        ['front-chambers', front],
        ['rear-chambers', rear],
      ] as const)
    : ([['chambers', chambers]] as const);
  return new Map(
    ends.flatMap(([of, groups]) =>
      groups.flatMap((group, at) =>
        wheelsOf(of, groups, at).map(
          ({ id, axle, side }) =>
            [id, { group: chambers.indexOf(group), axle, side, of: groupId(of, at) }] as const,
        ),
      ),
    ),
  );
}

/** Where a part sits: where somebody said, or where it usually does; off the vehicle where neither is known. */
function placeOf(
  unit: Described,
  { id, role }: Part,
  record: PartRecord | undefined,
  wheel: PlumbedPart['wheel'],
): PartPlace {
  if (record?.place) return record.place;
  const end = id.startsWith('front-') ? 'front' : 'rear';
  if (wheel) return wheelPlace(end, wheel.axle, wheel.side);
  if (role === 'chambers') return { row: axleRow(end, 0), column: 0 };
  const place = (hasCompressor(unit.kind) ? POWERED : TOWED)[id];
  return place ? { row: place[0], column: place[1] } : NOWHERE;
}

/** What has no place yet: behind everything else, so that it can still be seen and touched. */
export const NOWHERE: PartPlace = { row: 50, column: 0 };

/**
 * Lines past what is not fitted: a valve whose ports run together is bridged, and what is fed through another has no
 * feed but through it.
 */
function withoutParts(lines: readonly PlumbedLine[], out: readonly Part[]): PlumbedLine[] {
  let left = [...lines];
  /** A free opening of the port that now feeds what was behind the part. */
  const opening = ({ part, port }: PortAt): PortAt => {
    const base = port.split('.')[0]!;
    for (let n = 1; ; n += 1) {
      const free = n === 1 ? base : `${base}.${n}`;
      if (
        !left.some(({ from, to }) => [from, to].some((at) => at.part === part && at.port === free))
      )
        return { part, port: free };
    }
  };
  for (const { id, role } of out) {
    const touching = left.filter(({ from, to }) => from.part === id || to.part === id);
    left = left.filter((line) => !touching.includes(line));
    if (withoutIt(role) !== 'joined') continue;
    // What a relay takes from its own tank goes with it; its control runs on to what it delivered to.
    const into =
      touching.find(
        ({ to }) =>
          to.part === id &&
          (to.port === 'control' ||
            to.port === 'in' ||
            to.port === 'first' ||
            to.port === 'signal'),
      ) ?? touching.find(({ to }) => to.part === id);
    if (!into) continue;
    for (const line of touching.filter(({ from }) => from.part === id)) {
      left.push({ ...line, from: opening(into.from) });
    }
  }
  return left;
}

/** The lines as they were found: what somebody saw connected otherwise is connected so. */
function asFound(
  lines: readonly PlumbedLine[],
  found: readonly LineRecord[],
  parts: readonly PlumbedPart[],
): PlumbedLine[] {
  const records = new Map(found.map((record) => [record.lineId, record]));
  const known = new Set(lines.map(({ id }) => id));
  const changed = lines.flatMap((line): PlumbedLine[] => {
    const record = records.get(line.id);
    if (!record) return [line];
    if (record.standing === 'not-fitted') return [];
    return [
      {
        ...line,
        ...(record.from ? { from: { part: record.from.partId, port: record.from.port } } : {}),
        ...(record.to ? { to: { part: record.to.partId, port: record.to.port } } : {}),
        boreMm: record.boreMm ?? null,
        moves: record.moves ?? line.moves,
      },
    ];
  });
  const added = found.flatMap((record): PlumbedLine[] => {
    if (known.has(record.lineId) || record.standing === 'not-fitted') return [];
    if (!record.from || !record.to) return [];
    const role = parts.find(({ id }) => id === record.to?.partId)?.role;
    const port = role ? portsOf(role).find(({ id }) => id === record.to?.port) : null;
    return [
      {
        id: record.lineId,
        title: port ? `Line to ${port.title.toLowerCase()}` : 'Line',
        from: { part: record.from.partId, port: record.from.port },
        to: { part: record.to.partId, port: record.to.port },
        circuit: record.colour ?? 'supply',
        moves: record.moves ?? false,
        boreMm: record.boreMm ?? null,
      },
    ];
  });
  return [...changed, ...added];
}
