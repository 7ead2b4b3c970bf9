import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, rounded, sayPressure } from '@keen-bleed/core';
import type { Segment, SegmentKind } from '@keen-bleed/core/trace';
import { sayClock } from '../data/when';

/** What each kind of segment is called. */
export const segmentTitles: Readonly<Record<SegmentKind, string>> = {
  'build-up': 'Build-up',
  'cut-out': 'Cut-out',
  purge: 'Purge',
  'cut-in': 'Cut-in',
  hold: 'Hold',
  application: 'Application',
  fall: 'Fall past warning and pop-out',
  gap: 'Nothing recorded',
};

/** A segment in one line: when, from where to where, how steep, and what the line leaves. */
export function saySegment(segment: Segment, unit: PressureUnit): string {
  const at = sayClock(segment.fromS * 1000);
  if (segment.fromS === segment.toS) return `${at} · ${sayPressure(segment.fromPsi, unit)}`;
  const span = `${at} to ${sayClock(segment.toS * 1000)} · ${sayPressure(segment.fromPsi, unit)} to ${sayPressure(segment.toPsi, unit)}`;
  if (segment.slopePsiPerS === null) return span;
  const isHold = segment.kind === 'hold';
  const slope = fromPsi(segment.slopePsiPerS * (isHold ? 60 : 1), unit);
  const left = fromPsi(segment.residualPsi ?? 0, unit);
  return `${span} · ${rounded(slope, 2).replace('-', '−')} ${unit}/${isHold ? 'min' : 's'}, ± ${rounded(left, 2)} about the line`;
}
