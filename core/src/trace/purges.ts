import { psiAt, type Segment, type Trace } from './segments';

/** The dryer lets go within this of the cut-out, s; a whole purge takes about 25 s [trade]. */
const STARTS_WITHIN_S = 8;
const LONGEST_S = 90;
const STEP_S = 0.25;
/** What is purged stood at this, psi, and falls under half of it at once, as a tank does not. */
const LEAST_PSI = 40;
const FALLS_TO = 0.5;
/** It is over once under this share of where it stood. */
const OVER_AT = 0.05;

/**
 * Purges in a column other than the tank's: after a cut-out the dryer, or its discharge line, is let down to nothing
 * while the tank stands. A tank's own curve does not show them.
 *
 * @param others further columns of the same recording
 * @param segments what was found in the tank's; their cut-outs are looked at
 */
export function purgesOf(others: readonly Trace[], segments: readonly Segment[]): Segment[] {
  return segments
    .filter((each) => each.kind === 'cut-out')
    .flatMap((cutOut) => {
      for (const trace of others) {
        const found = purgeAfter(trace, cutOut.fromS);
        if (found) return [found];
      }
      return [];
    });
}

function purgeAfter(trace: Trace, atS: number): Segment | null {
  const sound = withoutHoles(trace);
  const endS = sound.seconds.at(-1) ?? 0;
  const stood = psiAt(sound, atS - STARTS_WITHIN_S / 2);
  if (!(stood >= LEAST_PSI)) return null;
  let fromS = NaN;
  for (let s = atS - STARTS_WITHIN_S / 2; s <= Math.min(endS, atS + STARTS_WITHIN_S); s += STEP_S) {
    if (psiAt(sound, s) >= 0.95 * stood) fromS = s;
    else if (psiAt(sound, s) < FALLS_TO * stood) break;
  }
  if (Number.isNaN(fromS) || psiAt(sound, fromS + STARTS_WITHIN_S) >= FALLS_TO * stood) return null;
  let toS = fromS;
  while (toS < Math.min(endS, fromS + LONGEST_S) && psiAt(sound, toS) > OVER_AT * stood) {
    toS += STEP_S;
  }
  return {
    kind: 'purge',
    fromS,
    toS,
    fromPsi: psiAt(sound, fromS),
    toPsi: psiAt(sound, toS),
    slopePsiPerS: null,
    residualPsi: null,
  };
}

/** A column without the rows in which it has no number. */
function withoutHoles({ seconds, psi }: Trace): Trace {
  if (!psi.some(Number.isNaN)) return { seconds, psi };
  const keep = Array.from(psi.keys()).filter((i) => !Number.isNaN(psi[i]));
  return {
    seconds: Float64Array.from(keep, (i) => seconds[i] ?? 0),
    psi: Float64Array.from(keep, (i) => psi[i] ?? 0),
  };
}
