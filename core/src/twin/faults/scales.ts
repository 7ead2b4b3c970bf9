import { RHO_REFERENCE } from '../equations/flow';
import { KG_PER_S_PER_SCFM } from '../senses/freeAir';
import { pa } from '../network/pascal';
import type { Range } from '../graded';

/** Leaks and seats are graded by the free air they lose with this much behind them, psi. */
export const GRADED_AT_PSI = 110;
const ATMOSPHERE_PA = 101_325;

/** Least and most of a leak or a seat, scfm: from what a soap bubble just shows to what nobody can miss. */
export const LEAST_SCFM = 0.02;
export const MOST_SCFM = 4;

/** Sonic conductance that loses so much free air at `GRADED_AT_PSI`, choked; m³/(s·Pa). */
export const conductanceOf = (scfm: number): number =>
  (scfm * KG_PER_S_PER_SCFM) / (RHO_REFERENCE * (pa(GRADED_AT_PSI) + ATMOSPHERE_PA));

/** What every leak and every seat loses, by severity. */
export const LOSS: Range = {
  from: conductanceOf(LEAST_SCFM),
  to: conductanceOf(MOST_SCFM),
  on: 'log',
};

/** What every narrowed way still passes of its flow, by severity. */
export const PASSES: Range = { from: 0.6, to: 0.003, on: 'log' };

/** What a line that the compressor pumps into still passes: narrower, and the pump's own gaskets would give way. */
export const PASSES_PUMPED: Range = { from: 0.3, to: 0.035, on: 'log' };

/** A range of conductances as shares of a way's bore. */
export const asShare = ({ from, to, on }: Range, conductance: number): Range => ({
  from: Math.min(1, from / conductance),
  to: Math.min(1, to / conductance),
  on,
});
