import { USUAL_SENSES, type Check, type Senses } from '../checks/check';
import { partOf } from '../twin/faults/faultsOf';
import type { Fault } from '../twin/faults/fault';
import { Twin } from '../twin/twin';
import { PRIOR, priorsOf, WEIGHED_AT, type Cause, type Repairs } from './causes';
import { complaints, saysOf, SAID_ANYHOW } from './complaints';
import type { AnswerEvidence, Evidence, RunEvidence } from './evidence';
import { shownBetween, together } from './interpolated';
import { JointWeigher, logSaid, type WouldAnswer } from './likelihood';
import { figureOf, type RigModel } from './rigModel';
import { EITHER_LAMP, LOOSE, READER, UNLISTED_WAYS } from './oddReadings';
import { lampFigures, measureOf } from './runFigures';
import { pointsAt } from './symptoms';
import { WouldAnswers } from './wouldAnswers';

export interface WeighOptions {
  senses?: Senses;
  repairs?: Repairs;
}

/** A cause and its chance among all. */
export interface Weighed {
  cause: Cause;
  chance: number;
}

/** A cause as it is being weighed: its logarithm before evidence, and what each piece of evidence adds. */
interface Scale {
  cause: Cause;
  prior: number;
  logs: number[];
}

/** What looks of the trade's table show: a suspect of the row, and anything else. */
const LOOK_OF_SUSPECT = 0.7;
const LOOK_OTHERWISE = 0.05;
/** A sound rig fails a limit so seldom. */
const SOUND_FAILS = 0.1;
/** Somebody who knows is right so much more often than not. */
const NAMED = Math.log(60);

const logSum = (logs: readonly number[]): number => {
  const most = Math.max(...logs);
  return most === -Infinity
    ? -Infinity
    : most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0));
};

/** What was found between two repairs: its numbers are weighed together. */
interface Epoch {
  untilMs: number;
  joint: JointWeigher;
  others: readonly Evidence[];
}

/** What one piece of evidence, or all the numbers of one time, say of a cause. */
interface Voice {
  atMs: number;
  log: (cause: Cause) => number;
}

/** Evidence weighed against every cause of a rig. */
export class Weighing {
  readonly weighed: readonly Weighed[];
  /** Numbers of the newest time: since the last repair. */
  readonly joint: JointWeigher;
  private readonly voices: readonly Voice[];
  private readonly would: WouldAnswers;

  constructor(
    readonly model: RigModel,
    readonly evidence: readonly Evidence[],
    readonly options: WeighOptions = {},
  ) {
    this.would = new WouldAnswers(model, this.senses);
    const epochs = this.epochsOf();
    this.joint = epochs.at(-1)!.joint;
    this.voices = epochs.flatMap(({ untilMs, joint, others }) => [
      { atMs: untilMs, log: (cause: Cause) => TEMPER * this.logJoint(joint, cause) },
      ...others.map((each) => {
        const log = this.logOf(each);
        return { atMs: each.atMs, log: (cause: Cause) => TEMPER * log(cause) };
      }),
    ]);
    this.weighed = this.weigh();
  }

  /** Faults that are weighed: until a rig is worked out, those whose run is known. */
  get faults(): readonly Fault[] {
    const { model } = this;
    if (!model.hasRun || !this.joint.run || model.isWhole) return model.faults;
    return model.faults.filter(({ id }) => model.runsOf(id).length > 0);
  }

  /** The share of all faults that is not worked out yet. */
  private notYet(priors: ReadonlyMap<string, number>): number {
    const weighed = this.faults.reduce((sum, { id }) => sum + priors.get(id)!, 0);
    return Math.max(0, 1 - weighed);
  }

  /** Not every fault has been weighed, or not at every severity. */
  get isRough(): boolean {
    return this.joint.run !== null && !this.model.isWhole;
  }

  get senses(): Senses {
    return this.options.senses ?? USUAL_SENSES;
  }

  private epochsOf(): Epoch[] {
    const { evidence, model } = this;
    const repairs = evidence.flatMap((each) => (each.kind === 'repair' ? [each.atMs] : []));
    const ends = [...new Set(repairs)].sort((a, b) => a - b);
    return [...ends, Infinity].map((untilMs, n): Epoch => {
      const fromMs = ends[n - 1] ?? -Infinity;
      const here = evidence.filter(({ atMs }) => atMs > fromMs && atMs <= untilMs);
      const runs = here.flatMap((each) => (each.kind === 'run' ? [each] : []));
      // A run made again takes the place of the one before it.
      const run = runs.reduce<RunEvidence | null>(
        (newest, each) => (newest === null || each.atMs >= newest.atMs ? each : newest),
        null,
      );
      const answers = here.flatMap((each) => (each.kind === 'answer' ? [each] : []));
      const isNumber = ({ answer }: AnswerEvidence) => figureOf(answer) !== null;
      return {
        untilMs,
        joint: new JointWeigher(model, model.hasRun ? run : null, answers.filter(isNumber)),
        others: here.filter(
          (each) =>
            each.kind !== 'run' &&
            each.kind !== 'repair' &&
            !(each.kind === 'answer' && isNumber(each)),
        ),
      };
    });
  }

  private weigh(): Weighed[] {
    const { model } = this;
    const priors = priorsOf(model.faults, this.options.repairs);
    const left = 1 - PRIOR.sound - PRIOR.reader - PRIOR.unlisted - PRIOR.pair;
    const scales: Scale[] = [
      this.scaleOf({ kind: 'sound' }, PRIOR.sound),
      // What is not worked out yet counts as something else until it is.
      this.scaleOf({ kind: 'unlisted' }, PRIOR.unlisted + left * this.notYet(priors)),
      ...READER.map(({ which }) =>
        this.scaleOf({ kind: 'reader', which }, PRIOR.reader / READER.length),
      ),
      ...this.faults.flatMap((fault) =>
        WEIGHED_AT.map((severity) =>
          this.scaleOf(
            { kind: 'fault', fault, severity },
            (left * priors.get(fault.id)!) / WEIGHED_AT.length,
          ),
        ),
      ),
    ];
    const single = this.chancesOf(scales);
    const unexplained = scales.reduce(
      (sum, { cause }, n) =>
        sum + (cause.kind === 'unlisted' || cause.kind === 'reader' ? single[n]! : 0),
      0,
    );
    const all =
      unexplained < UNEXPLAINED ? scales : [...scales, ...this.pairsOf(scales, single, priors)];
    const chances = all === scales ? single : this.chancesOf(all);
    return all.map(({ cause }, n) => ({ cause, chance: chances[n]! }));
  }

  private scaleOf(cause: Cause, prior: number): Scale {
    return { cause, prior: Math.log(prior), logs: this.voices.map(({ log }) => log(cause)) };
  }

  /** Chances, where what was found before a repair no longer counts for the part that was replaced. */
  private chancesOf(scales: readonly Scale[]): number[] {
    const repairs = this.evidence.flatMap((each) => (each.kind === 'repair' ? [each] : []));
    const marginal = this.voices.map((_, n) =>
      logSum(scales.map(({ prior, logs }) => prior + logs[n]!)),
    );
    const partFor = repairs.length > 0 ? this.partFinder() : () => null;
    const totals = scales.map(({ cause, prior, logs }) => {
      const mended = Math.max(
        -Infinity,
        ...repairs
          .filter(({ unit, part }) =>
            faultsIn(cause).some((fault) => {
              const at = partFor(fault);
              return at?.unit === unit && isSamePart(at.part, part);
            }),
          )
          .map(({ atMs }) => atMs),
      );
      return logs.reduce(
        (sum, log, n) => sum + (this.voices[n]!.atMs <= mended ? marginal[n]! : log),
        prior,
      );
    });
    const sum = logSum(totals);
    return totals.map((total) => Math.exp(total - sum));
  }

  private partFinder(): (fault: Fault) => { unit: number; part: string } | null {
    const twin = new Twin(this.model.rig);
    return (fault) => partOf(fault, twin);
  }

  private logOf(each: Evidence): (cause: Cause) => number {
    switch (each.kind) {
      case 'run':
      case 'repair':
        return () => 0;
      case 'answer':
        return this.answerLogs(each);
      case 'complaint': {
        const complaint = complaints.find(({ id }) => id === each.complaintId);
        if (!complaint) return () => 0;
        return (cause) => {
          if (cause.kind === 'unlisted') return Math.log(0.1);
          const said = faultsIn(cause).map((fault, n) =>
            saysOf(complaint, fault, severitiesIn(cause)[n]),
          );
          return Math.log(Math.max(SAID_ANYHOW, ...said));
        };
      }
      case 'failed':
        return (cause) => (cause.kind === 'sound' ? Math.log(SOUND_FAILS) : 0);
      case 'named':
        return (cause) => (faultsIn(cause).some(({ id }) => id === each.fault) ? NAMED : 0);
      case 'look': {
        const pointed = pointsAt(each.key, this.model.faults, []);
        const suspects = new Set(pointed?.suspects.map(({ id }) => id) ?? []);
        if (suspects.size === 0) return () => 0;
        return (cause) =>
          Math.log(
            faultsIn(cause).some(({ id }) => suspects.has(id))
              ? LOOK_OF_SUSPECT
              : cause.kind === 'unlisted'
                ? LOOK_UNLISTED
                : LOOK_OTHERWISE,
          );
      }
    }
  }

  /** What all numbers of one time, and the lamps of its run, say of a cause. */
  private logJoint(joint: JointWeigher, cause: Cause): number {
    const { model } = this;
    const nominal = joint.run ? model.run(null) : null;
    const usualLamps = nominal?.lamps ?? {};
    const shiftOf = (fault: Fault, severity: number) => {
      const shown = joint.run ? shownBetween(model, fault, severity) : null;
      const would = (check: Check) => this.wouldAnswer(check, fault, severity);
      const shift = joint.shiftOf(shown, would);
      return { shift, unsure: joint.unsureOf(shown, would), lamps: shown?.lamps ?? {} };
    };
    switch (cause.kind) {
      case 'sound':
        return joint.logLikelihood(null) + joint.logLamps(usualLamps);
      case 'reader': {
        const { of } = READER.find(({ which }) => which === cause.which)!;
        const along = joint.laidOut((figure) => (figure ? (of[figure] ?? 0) : 0));
        return joint.logLikelihood(null, along) + joint.logLamps(usualLamps);
      }
      case 'unlisted': {
        const logs = UNLISTED_WAYS.map((figures) =>
          joint.logLikelihood(
            null,
            null,
            joint.laidOut((figure, row) =>
              figure === null
                ? UNLISTED_ANSWERS * joint.deviation(row) ** 2
                : figures.includes(figure)
                  ? LOOSE[measureOf(figure)]
                  : 0,
            ),
          ),
        );
        return logSum(logs) - Math.log(logs.length) + joint.logLamps(EITHER_LAMP);
      }
      case 'fault': {
        const { shift, unsure, lamps } = shiftOf(cause.fault, cause.severity);
        return joint.logLikelihood(shift, null, unsure) + joint.logLamps(lamps);
      }
      case 'pair': {
        const [a, b] = cause.faults.map((fault, n) => shiftOf(fault, cause.severities[n]!)) as [
          ReturnType<typeof shiftOf>,
          ReturnType<typeof shiftOf>,
        ];
        const shift = a.shift.map((by, n) => by + (b.shift[n] ?? 0));
        const unsure = a.unsure.map((by, n) => by + (b.unsure[n] ?? 0));
        const lamps = Object.fromEntries(
          lampFigures.flatMap((lamp) => {
            const of = usualLamps[lamp];
            if (of === undefined) return [];
            const from = a.lamps[lamp] === of ? b.lamps[lamp] : a.lamps[lamp];
            return [[lamp, from ?? of]];
          }),
        );
        return joint.logLikelihood(shift, null, unsure) + joint.logLamps(lamps);
      }
    }
  }

  private answerLogs({ checkId, answer }: AnswerEvidence): (cause: Cause) => number {
    const check = this.model.checkById.get(checkId);
    if (!check) return () => 0;
    const sound = this.wouldAnswer(check, null, 0);
    return (cause) => {
      switch (cause.kind) {
        case 'sound':
        case 'reader':
          return logSaid(answer, sound);
        case 'fault':
          return logSaid(answer, this.wouldAnswer(check, cause.fault, cause.severity));
        case 'pair': {
          const [a, b] = cause.faults.map((fault, n) =>
            this.wouldAnswer(check, fault, cause.severities[n]!),
          ) as [WouldAnswer, WouldAnswer];
          return logSaid(answer, together(a, b, sound));
        }
        case 'unlisted': {
          const even = 1 / Math.max(2, Object.keys(sound.chances).length);
          return Math.log(0.6 * Math.exp(logSaid(answer, sound)) + 0.4 * even);
        }
      }
    };
  }

  /**
   * What a cause would answer to a check, through the senses of this weighing.
   *
   * @param fault null for a sound rig
   */
  wouldAnswer(check: Check, fault: Fault | null, severity: number): WouldAnswer {
    return this.would.of(check, fault, severity);
  }

  /** Two at once, where the best single causes need a second. */
  private pairsOf(
    scales: readonly Scale[],
    chances: readonly number[],
    priors: ReadonlyMap<string, number>,
  ): Scale[] {
    const best = new Map<string, { fault: Fault; severity: number; chance: number }>();
    scales.forEach(({ cause }, n) => {
      if (cause.kind !== 'fault') return;
      const { fault, severity } = cause;
      const chance = chances[n]!;
      if (chance > (best.get(fault.id)?.chance ?? -1))
        best.set(fault.id, { fault, severity, chance });
    });
    const first = [...best.values()].sort((a, b) => b.chance - a.chance).slice(0, PAIRED);
    const pairs = new Map<string, Scale>();
    for (const { fault, severity } of first) {
      for (const other of this.faults) {
        if (other.id === fault.id || other.at === fault.at) continue;
        for (const also of PAIR_AT) {
          const key = `${[fault.id, other.id].sort().join(' & ')} ${also}`;
          if (pairs.has(key)) continue;
          const prior =
            (PRIOR.pair * 2 * priors.get(fault.id)! * priors.get(other.id)!) / PAIR_AT.length;
          const severities = [severity, also] as const;
          pairs.set(key, this.scaleOf({ kind: 'pair', faults: [fault, other], severities }, prior));
        }
      }
    }
    return [...pairs.values()];
  }
}

/** The second of two is looked for beside so many of the likeliest. */
const PAIRED = 8;
const PAIR_AT = [0.4, 0.7, 1] as const;

export const faultsIn = (cause: Cause): readonly Fault[] =>
  cause.kind === 'fault' ? [cause.fault] : cause.kind === 'pair' ? cause.faults : [];

/** How bad each fault of a cause is, in the order of `faultsIn`. */
export const severitiesIn = (cause: Cause): readonly number[] =>
  cause.kind === 'fault' ? [cause.severity] : cause.kind === 'pair' ? cause.severities : [];

const isSamePart = (a: string, b: string) => a === b || a.split('.')[0] === b.split('.')[0];

/** The model is not the rig: evidence counts for so much of what it says. Chosen on worlds of seeds 1 and 2 alone. */
const TEMPER = 0.85;

/** What is left over is worth looking for a second fault from this chance on. */
const UNEXPLAINED = 0.04;
/** A look that is not right, where the cause is not in the list. */
const LOOK_UNLISTED = 0.3;
/** Of something that is not in the list a check's number may lie so many variances wide. */
const UNLISTED_ANSWERS = 40;
