import type { AnyHeader, Unit } from '@keen-bleed/contract';

/** The units a log is on, front to rear, as they were when it was opened. */
export function unitsOfHeader(header: AnyHeader): readonly Unit[] {
  return header.kind === 'run' ? [header.made.unit, ...header.made.towed] : header.made.units;
}
