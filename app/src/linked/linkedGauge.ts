import type { GaugeRole } from '@keen-bleed/contract';
import type { GaugeSample } from '@keen-bleed/core';

/** A gauge that is read by itself. */
export interface LinkedGauge {
  /** Its readings by this device's clock, oldest first. */
  log: readonly GaugeSample[];
  /** Where it stands now; null where nothing has come for a while. */
  psi: number | null;
  /** To what it can be read, psi. */
  resolutionPsi: number;
  /** Which of a run's gauges it counts as; null where that is the technician's to say. */
  asRole: GaugeRole | null;
}
