import type { Fault, Severity } from './fault';

/** Under this nobody notices it, from that on everybody does who notices it at all [common practice, no source]. */
const NOBODY = 0.05;
const EVERYBODY = 0.5;

/** A fault that is there or not, without more and less of it. */
const isAllOrNothing = ({ does }: Pick<Fault, 'does'>): boolean =>
  !does.some((effect) => Object.values(effect).some((value) => typeof value === 'object'));

/**
 * Of the eyes and drivers that notice a bad fault, how many notice it at a severity, 0 to 1: a driver does not complain
 * of an intake that is hardly dirty, nor does an eye see it.
 */
export const noticedShare = (fault: Pick<Fault, 'does'>, severity: Severity): number =>
  isAllOrNothing(fault) ? 1 : Math.min(1, Math.max(0, (severity - NOBODY) / (EVERYBODY - NOBODY)));
