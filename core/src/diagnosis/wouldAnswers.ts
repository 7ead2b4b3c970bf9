import type { Check, CheckAnswer, Senses } from '../checks/check';
import type { Fault } from '../twin/faults/fault';
import { noticedShare } from '../twin/faults/noticed';
import { BENT, bend, between, blend, mixed } from './interpolated';
import { chancesOf, type WouldAnswer } from './likelihood';
import { CHECKED_AT, figureOf, saidOf, type RigModel, type SoundAnswers } from './rigModel';

/** What each cause would answer to each check of a rig, through somebody's senses; worked out once. */
export class WouldAnswers {
  private readonly usual = new Map<
    string,
    { of: SoundAnswers['shares']; chances: Readonly<Record<string, number>> }
  >();
  private readonly answered = new Map<string, Readonly<Record<string, number>>>();
  private readonly still = new Map<string, WouldAnswer>();
  private readonly nominal = new Map<string, CheckAnswer>();

  constructor(
    private readonly model: RigModel,
    private readonly senses: Senses,
  ) {}

  /**
   * What a cause would answer to a check: as sound rigs do, where the check shows nothing of it.
   *
   * @param fault null for a sound rig
   */
  of(check: Check, fault: Fault | null, severity: number): WouldAnswer {
    const { model } = this;
    if (check.doing.does === 'look') {
      const { sound, under } = check.doing;
      const bad = fault ? under[fault.id] : undefined;
      if (!fault || !bad) return this.stillLook(check, sound);
      const chances = blend(sound, bad, noticedShare(fault, severity));
      return { mean: 0, shift: 0, unsure: 0, chances };
    }
    const still = this.stillAt(check);
    if (!fault) return still;
    const { usual, nominal } = this.nominalOf(check);
    const [below, above, share] = between(CHECKED_AT, severity);
    const under = model.knownUnder(fault.id);
    const low = under[CHECKED_AT.indexOf(below as never)]?.get(check.id);
    const high = under[CHECKED_AT.indexOf(above as never)]?.get(check.id);
    if (!nominal || !low || !high) return still;
    const sound = model.soundTo(check.id);
    const from = figureOf(nominal);
    if (from !== null) {
      const to = (1 - share) * (figureOf(low) ?? from) + share * (figureOf(high) ?? from);
      if (to === from && figureOf(high) === figureOf(low)) return still;
      const unsure =
        BENT * bend(share) * Math.abs((figureOf(high) ?? from) - (figureOf(low) ?? from));
      return { mean: sound.mean + to - from, shift: to - from, unsure, chances: {} };
    }
    const one = (answer: typeof low) => {
      const shown = saidOf(answer) ?? '';
      return shown === saidOf(nominal) ? usual : this.saysWhere(check, shown);
    };
    const [lower, upper] = [one(low), one(high)];
    if (lower === usual && upper === usual) return still;
    const chances = lower === upper ? lower : blend(lower, upper, share);
    return { mean: 0, shift: 0, unsure: 0, chances };
  }

  /** What a check gives that shows nothing of a cause: one object for all of them, so that they are reckoned as one. */
  private stillAt(check: Check): WouldAnswer {
    const chances = this.usualOf(check);
    const { mean } = this.model.soundTo(check.id);
    const kept = this.still.get(check.id);
    if (kept?.chances === chances && kept.mean === mean) return kept;
    const made = { mean, shift: 0, unsure: 0, chances };
    this.still.set(check.id, made);
    return made;
  }

  private stillLook(check: Check, chances: Readonly<Record<string, number>>): WouldAnswer {
    const kept = this.still.get(check.id);
    if (kept) return kept;
    const made = { mean: 0, shift: 0, unsure: 0, chances };
    this.still.set(check.id, made);
    return made;
  }

  private nominalOf(check: Check) {
    const usual = this.usualOf(check);
    const kept = this.nominal.get(check.id);
    if (kept !== undefined) return { usual, nominal: kept };
    const nominal = this.model.answersTo([check.id], null).get(check.id);
    if (nominal) this.nominal.set(check.id, nominal);
    return { usual, nominal };
  }

  /** What sound rigs answer, through these senses. */
  private usualOf(check: Check): Readonly<Record<string, number>> {
    const { shares } = this.model.soundTo(check.id);
    const kept = this.usual.get(check.id);
    if (kept?.of === shares) return kept.chances;
    const chances = mixed(check, shares, this.senses);
    this.usual.set(check.id, { of: shares, chances });
    return chances;
  }

  /** What is answered where a twin shows something, through these senses. */
  private saysWhere(check: Check, shown: string): Readonly<Record<string, number>> {
    const key = `${check.id} ${shown}`;
    const kept = this.answered.get(key);
    if (kept) return kept;
    const chances = chancesOf(check, shown, this.senses);
    this.answered.set(key, chances);
    return chances;
  }
}
