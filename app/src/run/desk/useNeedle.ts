import type { Gauge } from '@keen-bleed/contract';
import {
  caughtMark,
  halfDivisionPsi,
  nearestLinePsi,
  nearestReadingPsi,
  nudgedPsi,
  type CaughtMark,
  type PadNow,
  type RunState,
} from '@keen-bleed/core';
import { useMemo, useState } from 'react';
import type { LinkedGauge } from '../../linked/linkedGauge';

/** Where the needle is thought to be, by whom, and how it is moved. */
export interface Needle {
  /** Null where no reading is waited for. */
  needlePsi: number | null;
  /** Where a linked gauge's needle stands now. */
  livePsi: number | null;
  /** When a linked gauge saw what the pad waits for; null where it did not, or a thumb says otherwise. */
  caughtAtMs: number | null;
  /** To what the reading is good, psi of a dial's half division: the link's own where it reads. */
  resolutionPsi: number;
  /** A thumb has moved it since the last mark. */
  byHand: boolean;
  /** Somebody, or a gauge, says that it stands there: it is more than suggested. */
  isSet: boolean;
  /** What one nudge moves. */
  movePsi: number;
  nudge: (moves: number) => void;
  drag: (psi: number) => void;
}

/** Where the needle is, as far as it is not moved by hand. */
type Standing = Pick<
  Needle,
  'needlePsi' | 'livePsi' | 'caughtAtMs' | 'resolutionPsi' | 'byHand' | 'isSet'
>;

/**
 * Where the needle of what the pad waits for stands.
 *
 * @param caught what a linked gauge saw of it; null where it did not, or there is none
 * @param movedPsi where a thumb has put it; null where none has
 */
export function needleAt(
  pad: PadNow | null,
  gauge: Gauge,
  linked: LinkedGauge | null,
  caught: CaughtMark | null,
  movedPsi: number | null,
): Standing {
  const livePsi = linked?.psi ?? null;
  const byHand = movedPsi !== null;
  const proposedPsi = !pad
    ? null
    : caught
      ? caught.psi
      : livePsi !== null && pad.method === 'read'
        ? livePsi
        : pad.proposedPsi;
  return {
    needlePsi: !pad ? null : (movedPsi ?? proposedPsi),
    livePsi,
    caughtAtMs: caught && !byHand ? caught.atMs : null,
    resolutionPsi:
      byHand || !linked ? halfDivisionPsi(gauge) : (caught?.resolutionPsi ?? linked.resolutionPsi),
    byHand,
    isSet: byHand || caught !== null || livePsi !== null,
  };
}

/** The needle of what the pad waits for: as expected, as a linked gauge has it, or as a thumb put it. */
export function useNeedle(
  pad: PadNow | null,
  { step, marks, lastAtMs }: Pick<RunState, 'step' | 'marks' | 'lastAtMs'>,
  gauge: Gauge,
  linked: LinkedGauge | null,
): Needle {
  const [moved, setMoved] = useState<{ awaits: string; psi: number } | null>(null);
  const awaits = `${step?.id ?? ''}/${pad?.spec.key ?? ''}/${marks.length}`;
  const log = linked?.log;
  const padKey = pad ? `${pad.spec.key}/${pad.proposedPsi}/${pad.method}` : '';
  // The pad is made anew at each drawing; what it waits for is what counts.
  const caught = useMemo(
    () => (pad && log ? caughtMark(pad, log, lastAtMs) : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- padKey stands for all of the pad that counts here
    [padKey, log, lastAtMs],
  );
  const untouched = needleAt(pad, gauge, linked, caught, null);
  // A dial's lines only where a passing is timed; in a hold the needle may also stand between two.
  const byLine = pad?.method === 'crossing' && pad.between === null;
  const halvesAMove = byLine ? 2 : 1;
  return {
    ...needleAt(pad, gauge, linked, caught, moved?.awaits === awaits ? moved.psi : null),
    movePsi: halfDivisionPsi(gauge) * halvesAMove,
    nudge: (moves) => {
      if (!pad) return;
      // From where the last nudge put it, drawn or not: keys come faster than a slow phone draws.
      setMoved((before) => {
        const from =
          before?.awaits === awaits ? before.psi : (untouched.needlePsi ?? pad.proposedPsi);
        return { awaits, psi: nudgedPsi(from, moves * halvesAMove, gauge) };
      });
    },
    drag: (psi) =>
      setMoved({
        awaits,
        psi: byLine ? nearestLinePsi(psi, gauge) : nearestReadingPsi(psi, gauge),
      }),
  };
}
