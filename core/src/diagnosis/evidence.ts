import type { CheckAnswer } from '../checks/check';
import type { LampFigure, NumberFigure, RunFigures } from './runFigures';

interface Found {
  /** When it was found, ms; what is older than a repair says nothing of the part that was replaced. */
  atMs: number;
}

/** What a run showed, and how far each reading may be off: one standard deviation in the figure's own unit. */
export interface RunEvidence extends Found {
  kind: 'run';
  figures: RunFigures;
  doubt?: Readonly<Partial<Record<NumberFigure, number>>>;
  /** The dash was compared with a master gauge: its needles are put right by it. */
  gaugeChecked?: boolean;
  /** At how many turns the engine ran while it built up is not known. */
  turnsUnknown?: boolean;
  /** What this rig showed in earlier runs that passed: its own needles and its own compressor speak there too. */
  usual?: UsualFigures;
}

/** Medians of earlier runs, and of how many. */
export interface UsualFigures {
  figures: Readonly<Partial<Record<NumberFigure, number>>>;
  runs: number;
}

/** What a check of the catalogue found. */
export interface AnswerEvidence extends Found {
  kind: 'answer';
  checkId: string;
  answer: CheckAnswer;
}

/** What the driver says. */
export interface ComplaintEvidence extends Found {
  kind: 'complaint';
  complaintId: string;
}

/** Somebody who knows the rig says which fault it is. */
export interface NamedEvidence extends Found {
  kind: 'named';
  fault: string;
}

/** A look of a run that was not right, which the trade's table reads. */
export interface LookEvidence extends Found {
  kind: 'look';
  /** Of an open failure: `look:couplers/seals`. */
  key: string;
}

/** A run failed a limit of its rule set: sound rigs pass, nearly always. */
export interface FailedEvidence extends Found {
  kind: 'failed';
}

/** A part was replaced or mended: what was found before says nothing of it any more. */
export interface RepairEvidence extends Found {
  kind: 'repair';
  unit: number;
  part: string;
}

/** Something in the log of a rig that speaks for or against a cause. */
export type Evidence =
  | RunEvidence
  | AnswerEvidence
  | ComplaintEvidence
  | NamedEvidence
  | LookEvidence
  | FailedEvidence
  | RepairEvidence;

export type { LampFigure, NumberFigure };
