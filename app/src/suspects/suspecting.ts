import type { PressureUnit, Senses } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import { USUAL_SENSES, type Check, type RigStateId } from '@keen-bleed/core/checks';
import {
  faultChances,
  LEAST_SPOKEN_OF,
  meaningsOf,
  nextCheck,
  pointsAt,
  rankingOf,
  RigModel,
  sayHowBad,
  sayNumber,
  sayOption,
  Weighing,
  whyOf,
  type Evidence,
  type KeptTable,
  type Meaning,
  type Next,
  type Progress,
  type Ranking,
  type Why,
} from '@keen-bleed/core/diagnosis';
import { partOf, Twin, type Fault } from '@keen-bleed/core/twin';
import type { FromServer } from './serverTable';

/** A suspect as the screen shows it. */
export interface SuspectShown {
  /** By their ids; more than one where nothing tells them apart. */
  faults: readonly { id: string; part: string; title: string; unit: number; partId: string }[];
  chance: number;
  howBad: string;
  why: Why;
  /** A check that tells it and was not made yet. */
  notYet: string | null;
}

/** What to do next, in words. */
export type NextShown =
  | {
      next: 'check';
      checkId: string;
      minutes: number;
      /** What each answer would mean. */
      means: readonly { answer: string; then: string }[];
      others: readonly {
        checkId: string;
        title: string;
        stateTitle: string;
        minutes: number;
      }[];
    }
  | { next: Exclude<Next['next'], 'check'> | 'wait'; text: string };

/** How suspects stand. */
export interface Told {
  /** Not every fault is worked out yet. */
  rough: boolean;
  /** What is worked out now, in words, and how far; null once everything is. */
  working: { what: string; share: number } | null;
  suspects: readonly SuspectShown[];
  sound: number;
  reader: number;
  unlisted: number;
  two: { chance: number; titles: readonly string[] };
  next: NextShown;
  /** What the trade's table says beside it, and where it says otherwise. */
  table: readonly { found: string; suspects: readonly string[]; check: string; differs: boolean }[];
}

/** What suspects are asked for. */
export interface Asked {
  rig: RigUnderTest;
  rigKey: string;
  evidence: readonly Evidence[];
  /** Open failures of the rig, by key: what the trade's table is asked with. */
  failures: readonly string[];
  unit: PressureUnit;
  senses: Senses | null;
  /** The state the rig stands in, where a check has brought it there. */
  state: RigStateId | null;
  /** What was at fault in this shop before, by fault: how often. */
  repairs?: Readonly<Record<string, number>>;
  /** Suspects are only named: no check is worked out. */
  brief?: boolean;
}

export interface Suspecting {
  /** Weighs, and tells how suspects stand: at once what is known, and again as more is worked out. */
  weigh: (asked: Asked, onTold: (told: Told) => void) => Promise<void>;
  /** Works a rig out before it is asked for; null where another rig is in hand. */
  prepare: (rig: RigUnderTest, rigKey: string) => Promise<void>;
  /** Helps another thread that weighs a rig: begins at the other end, and hands over what it has as it goes. */
  help: (rig: RigUnderTest, rigKey: string, onTable: (table: KeptTable) => void) => Promise<void>;
  /** Takes in what a helper has worked out of a rig. */
  learn: (rigKey: string, table: KeptTable) => void;
  stop: () => void;
}

/** Where tables are kept between visits, and who else works them out. */
export interface TableStore {
  read: (rigKey: string) => Promise<KeptTable | null>;
  keep: (rigKey: string, table: KeptTable) => Promise<void>;
  /** What the shop's server has of a rig. */
  fromServer: (rig: RigUnderTest, rigKey: string) => Promise<FromServer>;
}

/** A thread hears what else it is told after so long, ms. */
const HEARS_EVERY_MS = 40;
/** Nobody waits for what is prepared: it rests as long as it works, so that a phone stays cool, ms. */
const RESTS_MS = 80;
/** A helper hands over what it has so often, ms. */
const HANDS_OVER_EVERY_MS = 500;
/** What is worked out is kept so often, ms. */
const KEEPS_EVERY_MS = 20_000;
/** The server is asked again after so long, ms. */
const ASKS_SERVER_EVERY_MS = 2_000;
/** Suspects shown, and worked out with every check before the rest. */
const SHOWN = 6;
const CHECKED = 8;

export function makeSuspecting(store: TableStore, nowMs: () => number): Suspecting {
  let model: RigModel | null = null;
  let inHand = '';
  let turn = 0;

  const modelOf = async (rig: RigUnderTest, rigKey: string): Promise<RigModel> => {
    if (model && inHand === rigKey) return model;
    const made = new RigModel(rig);
    const kept = await store.read(rigKey);
    if (kept) made.learn(kept);
    model = made;
    inHand = rigKey;
    return made;
  };

  /** Works something out, in slices; false once something else was asked for. */
  const workOut = async (
    of: RigModel,
    rigKey: string,
    work: Generator<Progress, void>,
    mine: number,
    onProgress: (progress: Progress) => void,
    restsMs = 0,
  ): Promise<boolean> => {
    let heardMs = nowMs();
    let keptMs = nowMs();
    let any = false;
    for (const progress of work) {
      any = true;
      if (nowMs() - heardMs < HEARS_EVERY_MS) continue;
      onProgress(progress);
      await heard(restsMs);
      heardMs = nowMs();
      if (mine !== turn) return false;
      if (nowMs() - keptMs > KEEPS_EVERY_MS) {
        await store.keep(rigKey, of.table());
        keptMs = nowMs();
      }
    }
    if (any) await store.keep(rigKey, of.table());
    return mine === turn;
  };

  /** Takes in what the server has worked out, as soon as it has: it is quicker than most phones. */
  const askServer = async (of: RigModel, asked: Pick<Asked, 'rig' | 'rigKey'>, mine: number) => {
    if (of.isWhole) return;
    while (mine === turn) {
      const found = await store.fromServer(asked.rig, asked.rigKey);
      if (found === 'none') return;
      if (found !== 'not yet') return of.learn(found);
      await heard(ASKS_SERVER_EVERY_MS);
    }
  };

  return {
    async weigh(asked, onTold) {
      const mine = ++turn;
      const { rig, rigKey } = asked;
      const of = await modelOf(rig, rigKey);
      if (mine !== turn) return;
      // Under a verdict suspects are only named: what the run has prepared is enough.
      if (!asked.brief) void askServer(of, asked, mine);
      const evidence = asked.evidence.filter(
        (each) => each.kind !== 'answer' || of.checkById.has(each.checkId),
      );
      const pointed = asked.failures.flatMap(
        (key) => pointsAt(key, of.faults, [])?.suspects.map(({ id }) => id) ?? [],
      );
      let last: Told | null = null;
      const tell = (what: string | null, share: number) => {
        last = toldOf(of, { ...asked, evidence }, what === null ? null : { what, share });
        onTold(last);
        return last;
      };
      const progressOf =
        (what: string) =>
        ({ done, of: all }: Progress) => {
          if (last) onTold({ ...last, working: { what, share: done / all } });
        };
      const work = (
        does: Parameters<RigModel['prepare']>[0],
        first: readonly string[],
        what: string,
      ) => workOut(of, rigKey, of.prepare(does, first), mine, progressOf(what));
      const hasRun = evidence.some(({ kind }) => kind === 'run');
      if (hasRun && !of.isWhole) {
        if (!(await work('first', pointed, 'a first look'))) return;
        tell('every fault of the rig', 0);
        if (!(await work('runs', [], 'every fault of the rig'))) return;
      }
      if (hasRun) {
        const likely = tell('how bad they are', 0).suspects;
        const ids = likely.flatMap(({ faults }) => faults.map(({ id }) => id));
        if (!(await work('runs', ids.slice(0, CHECKED), 'how bad they are'))) return;
      }
      if (asked.brief) return void tell(null, 1);
      const { suspects } = tell('checks of the suspects', 0);
      const first = suspects.flatMap(({ faults }) => faults.map(({ id }) => id)).slice(0, CHECKED);
      if (!(await work('checks', first, 'checks of the suspects'))) return;
      tell('every check', 0);
      if (!(await work('everything', first, 'every check'))) return;
      tell(null, 1);
    },
    async prepare(rig, rigKey) {
      const mine = ++turn;
      const of = await modelOf(rig, rigKey);
      if (mine !== turn) return;
      await workOut(of, rigKey, of.prepare('everything'), mine, () => undefined, RESTS_MS);
    },
    async help(rig, rigKey, onTable) {
      const mine = ++turn;
      // A table that is kept already holds it all: then there is nothing to help with.
      if ((await store.read(rigKey)) || mine !== turn) return;
      const of = new RigModel(rig);
      let heardMs = nowMs();
      for (const _ of of.prepare('behind')) {
        if (nowMs() - heardMs < HANDS_OVER_EVERY_MS) continue;
        onTable(of.table());
        await heard(0);
        heardMs = nowMs();
        if (mine !== turn) return;
      }
      onTable(of.table());
    },
    learn(rigKey, table) {
      if (rigKey === inHand) model?.learn(table);
    },
    stop: () => void (turn += 1),
  };
}

/** Lets a thread hear what it was told. */
const heard = (restsMs: number) => new Promise<void>((done) => setTimeout(done, restsMs));

/** How suspects stand by what is worked out so far. */
export function toldOf(model: RigModel, asked: Asked, working: Told['working']): Told {
  const { unit, state, failures } = asked;
  const weighing = new Weighing(model, asked.evidence, {
    senses: asked.senses ?? USUAL_SENSES,
    ...(asked.repairs ? { repairs: asked.repairs } : {}),
  });
  const ranking = rankingOf(weighing);
  const twin = new Twin(model.rig);
  const shown = (fault: Fault) => {
    const at = partOf(fault, twin);
    return { id: fault.id, part: fault.part, title: fault.title, unit: at.unit, partId: at.part };
  };
  const chances = faultChances(weighing);
  const suspects = ranking.suspects
    .filter(({ chance }) => chance >= LEAST_SPOKEN_OF)
    .slice(0, SHOWN)
    .map(({ faults, chance, severity }): SuspectShown => {
      const [first] = faults;
      return {
        faults: faults.map(shown),
        chance,
        howBad: sayHowBad(first!, severity),
        why: whyOf(weighing, first!, severity, unit),
        notYet: notYetOf(weighing, first!),
      };
    });
  const title = (id: string) => {
    const fault = chances.get(id)?.fault;
    return fault ? `${fault.part}: ${fault.title}` : 'nothing wrong that the list has';
  };
  const best = new Set(suspects.slice(0, 3).flatMap(({ faults }) => faults.map(({ id }) => id)));
  const seen = new Set<string>();
  return {
    rough: weighing.isRough,
    working,
    suspects,
    sound: ranking.sound,
    reader: ranking.reader,
    unlisted: ranking.unlisted,
    two: { chance: ranking.two.chance, titles: ranking.two.faults.map(({ id }) => title(id)) },
    next:
      asked.brief || weighing.isRough
        ? {
            next: 'wait',
            text: 'Not every fault of this rig is worked out yet. The next check is named once they are.',
          }
        : nextOf(weighing, nextCheck(weighing, { state }, ranking), ranking, unit, title),
    table: failures.flatMap((key) => {
      const pointed = pointsAt(key, model.faults, []);
      if (!pointed || seen.has(pointed.symptom.id)) return [];
      seen.add(pointed.symptom.id);
      return [
        {
          found: pointed.symptom.found,
          suspects: pointed.suspects.map(({ part, title: what }) => `${part}: ${what}`),
          check: pointed.symptom.check,
          differs: best.size > 0 && !pointed.suspects.some(({ id }) => best.has(id)),
        },
      ];
    }),
  };
}

/** The quickest check at the suspect's own part that nobody has made yet. */
function notYetOf({ model, evidence }: Weighing, fault: Fault): string | null {
  const made = new Set(evidence.flatMap((each) => (each.kind === 'answer' ? [each.checkId] : [])));
  const [check] = model.checks
    .filter(({ id, bearsOn }) => bearsOn.includes(fault.id) && !made.has(id))
    .sort((a, b) => a.minutes - b.minutes);
  return check ? check.title : null;
}

function nextOf(
  weighing: Weighing,
  next: Next,
  ranking: Ranking,
  unit: PressureUnit,
  title: (id: string) => string,
): NextShown {
  const [first] = ranking.suspects;
  switch (next.next) {
    case 'check':
      return {
        next: 'check',
        checkId: next.best.check.id,
        minutes: next.best.minutes,
        means: meaningsOf(weighing, next.best.check, ranking)
          .slice(0, 3)
          .map((meaning) => ({
            answer: sayMeant(next.best.check, meaning, unit),
            then: `${meaning.group === 'sound' ? 'nothing wrong that the list has' : title(meaning.group)}, ${Math.round(100 * meaning.chance)} in 100`,
          })),
        others: next.others.map(({ check, minutes }) => ({
          checkId: check.id,
          title: check.title,
          stateTitle: check.state.title,
          minutes,
        })),
      };
    case 'found': {
      const names = first?.faults.map(({ id }) => title(id)) ?? [];
      return {
        next: 'found',
        text:
          names.length > 1
            ? `No check tells these apart: open them, the first first. ${names.join('; or ')}.`
            : `Enough speaks for one part. ${names[0] ?? ''}. Mend it, then test again what it failed.`,
      };
    }
    case 'sound':
      return {
        next: 'sound',
        text: 'What was found is what sound rigs like this one show. Nothing has to be opened.',
      };
    case 'again':
      return {
        next: 'again',
        text: `What was read does not fit together: ${next.which === 'dial' ? 'a dial may be off. Compare it with a master gauge, and read again.' : `${next.which} may have slipped. Read it again.`}`,
      };
    case 'open':
      return {
        next: 'open',
        text:
          weighing.evidence.length === 0
            ? 'Nothing is known yet. Make a run, or say what the driver complains of.'
            : 'No single check tells more. Make a run again, or open the first suspect.',
      };
  }
}

const sayMeant = (check: Check, { answer }: Meaning, unit: PressureUnit): string =>
  'option' in answer
    ? sayOption(check, answer.option)
    : `about ${sayNumber(check, answer.mean, unit)}`;
