import type { FieldProblem, Step, Unit } from '@keen-bleed/contract';
import { procedureFor } from '../../../procedure/procedureFor';
import { newUnitDraft } from '../../../rig/newUnit';
import { ruleSets } from '../../../standards/ruleSets';

/** Answers that an earlier version offered and none of today's steps does: each with how it stood then. */
const NO_LONGER_ASKED: readonly (readonly [answer: string, standing: string])[] = [
  ['holding /stop straight', 'good'],
  ['holding /stop late', 'bad'],
  ['holding /stop pull-left', 'bad'],
  ['holding /stop pull-right', 'bad'],
  ['holding /stop no-stop', 'bad'],
];
/** How long 0.2.0 and 0.3.0 held, whatever the gauge, s. */
const HELD_S = 60;
const HELD_ALIKE: ReadonlySet<string> = new Set(['0.2.0', '0.3.0']);

/**
 * Whether the answers that an earlier version’s steps offer stand as they always stood, and its holds are as long as
 * they were. Its words may differ, and of its questions some may be missing: what an answer means may not, or a failing
 * vehicle would be good by what its own client says of it.
 *
 * @param asked the steps that a run brings with it
 * @param steps what its rig and rule set ask for today
 * @returns null where they do, otherwise the step that is wrong
 */
export function checkStandings(
  asked: readonly Step[],
  steps: readonly Step[],
  coreVersion: string,
): FieldProblem | null {
  const wrong = asked.find(
    (step) =>
      answersOf(step).some(([answer, standing]) => !known().get(answer)?.has(standing)) ||
      !isHeldAsLong(
        step,
        steps.find(({ id }) => id === step.id),
        coreVersion,
      ),
  );
  if (!wrong) return null;
  return {
    field: 'steps',
    message: `“${wrong.title}” does not take its answers, or its time, as version ${coreVersion} took them.`,
  };
}

function isHeldAsLong({ act }: Step, today: Step | undefined, coreVersion: string): boolean {
  if (act.kind !== 'hold') return true;
  if (today?.act.kind !== 'hold') return act.seconds >= HELD_S;
  return (
    act.seconds === today.act.seconds || (HELD_ALIKE.has(coreVersion) && act.seconds === HELD_S)
  );
}

/** Every answer that a step offers, by step, question and value, and how it stands. */
function answersOf(step: Step): [answer: string, standing: string][] {
  const found: [string, string][] = [];
  const look = (at: unknown, path: string): void => {
    if (Array.isArray(at)) for (const each of at) look(each, path);
    else if (typeof at === 'object' && at !== null) {
      const { standing, value, key } = at as Record<string, unknown>;
      if (typeof standing === 'string')
        found.push([`${step.id} ${path} ${String(value)}`, standing]);
      else for (const each of Object.values(at)) look(each, isName(key) ? `${path}/${key}` : path);
    }
  };
  look(step.act, '');
  return found;
}

const isName = (key: unknown): key is string => typeof key === 'string';

let table: ReadonlyMap<string, ReadonlySet<string>> | null = null;

/** How every answer stands that today’s steps offer on any kind of vehicle, and those that none offers any more. */
function known(): ReadonlyMap<string, ReadonlySet<string>> {
  if (table) return table;
  const found = new Map<string, Set<string>>();
  const put = (answer: string, standing: string) =>
    found.set(answer, (found.get(answer) ?? new Set()).add(standing));
  for (const [answer, standing] of NO_LONGER_ASKED) put(answer, standing);
  for (const rig of anyRigs())
    for (const set of ruleSets)
      for (const step of procedureFor(rig, set, []).steps)
        for (const [answer, standing] of answersOf(step)) put(answer, standing);
  table = found;
  return table;
}

/** One vehicle of each kind, age and school, alone and towing. */
function anyRigs() {
  const schools = [1970, 1990, 2000, 2020].flatMap((year) =>
    (['words', 'numbers'] as const).map((ports) => [year, ports] as const),
  );
  return schools.flatMap(([year, ports]) => {
    const one = (kind: Unit['kind']) => unitOf(kind, year, ports);
    const alone = (['truck', 'tractor', 'bus', 'trailer', 'dolly'] as const).map(one);
    const [trailer, dolly] = [one('trailer'), one('dolly')];
    return [
      ...alone.map((unit) => ({ unit, towed: [] })),
      { unit: one('truck'), towed: [trailer] },
      { unit: one('tractor'), towed: [trailer] },
      { unit: one('tractor'), towed: [trailer, dolly, trailer] },
    ];
  });
}

const unitOf = (kind: Unit['kind'], year: number, ports: Unit['ports']): Unit => ({
  ...newUnitDraft(kind, year),
  ...{ ports, id: `${kind} ${year} ${ports}`, number: '1', name: kind, revision: 1 },
  ...{ retiredAtMs: null },
});
