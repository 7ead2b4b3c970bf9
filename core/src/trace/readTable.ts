import type { PressureUnit } from '@keen-bleed/contract';
import { toPsi } from '../units/pressure';
import type { Trace } from './segments';

/** What the head of a column tells of it. */
export interface ColumnHead {
  title: string;
  /** Null where the head does not say. */
  unit: PressureUnit | 's' | 'ms' | 'min' | null;
}

const units: readonly (readonly [RegExp, ColumnHead['unit']])[] = [
  [/\bpsi\b/i, 'psi'],
  [/\bkpa\b/i, 'kPa'],
  [/\bbar\b/i, 'bar'],
  [/\b(ms|millis(econds?)?)\b/i, 'ms'],
  [/\bmin(ute)?s?\b/i, 'min'],
  [/\b(s|secs?|seconds?)\b/i, 's'],
];

/** Reads the unit out of a column's head: “Primary (kPa)”, “time_s”. */
export function columnHead(title: string): ColumnHead {
  const words = title.replaceAll(/[_()[\]/,;]/g, ' ');
  return { title: title.trim(), unit: units.find(([fits]) => fits.test(words))?.[1] ?? null };
}

/** Heads of a table, each with a title of its own: where there is none, or another has it, by its column's number. */
export function columnHeads(titles: readonly string[]): ColumnHead[] {
  const heads = titles.map(columnHead);
  const isShared = (title: string) => heads.filter((head) => head.title === title).length > 1;
  return heads.map(({ title, unit }, i) => {
    const column = `column ${i + 1}`;
    return { title: title === '' ? column : isShared(title) ? `${title} · ${i + 1}` : title, unit };
  });
}

/** No brake's air stands outside of this, psi: what a logger writes there is its word for a lost sensor. */
const LEAST_PSI = -5;
const MOST_PSI = 300;

/** A pressure as a logger writes it, psi; NaN where it is none. */
function readPressure(text: string, unit: PressureUnit): number {
  const psi = toPsi(readNumber(text), unit);
  return psi >= LEAST_PSI && psi <= MOST_PSI ? psi : NaN;
}

const perSecond = { s: 1, ms: 1e-3, min: 60 } as const;

/** A number as loggers write it, with a point or a comma; NaN where it is none. */
export function readNumber(text: string): number {
  const trimmed = text.trim();
  if (trimmed === '') return NaN;
  return Number(/^[-+]?\d+,\d+$/.test(trimmed) ? trimmed.replace(',', '.') : trimmed);
}

/** A moment as loggers write it, in seconds: a number, a time of day, or a date and time. */
export function readMoment(text: string, unit: 's' | 'ms' | 'min'): number {
  const number = readNumber(text);
  if (!Number.isNaN(number)) return number * perSecond[unit];
  const clock = /^(\d{1,2}):(\d{2}):(\d{2}(?:[.,]\d+)?)$/.exec(text.trim());
  if (clock) {
    const [hours, minutes, seconds] = clock.slice(1).map((part) => Number(part.replace(',', '.')));
    return (hours ?? 0) * 3_600 + (minutes ?? 0) * 60 + (seconds ?? 0);
  }
  const date = Date.parse(
    text.includes('T') || text.includes('Z') ? text : `${text.trim().replace(' ', 'T')}Z`,
  );
  return date / 1000;
}

/**
 * Gathers the rows of a table: one time, and one or more pressures, the first of which is the one that counts. Rows
 * that cannot be read are counted, not guessed; what another column leaves out is not a number in it.
 */
export class TraceReader {
  /** Rows left out: no number in them, no pressure that can be, or a time that went back. */
  leftOut = 0;
  private seconds = new Float64Array(4096);
  private readonly psi: Float64Array<ArrayBuffer>[];
  private length = 0;
  private startS = NaN;

  constructor(
    private readonly timeUnit: 's' | 'ms' | 'min',
    private readonly pressureUnits: readonly PressureUnit[],
  ) {
    this.psi = pressureUnits.map(() => new Float64Array(4096));
  }

  add(time: string, pressures: readonly string[]): void {
    const moment = readMoment(time, this.timeUnit);
    const counts = this.pressure(pressures, 0);
    if (Number.isNaN(moment) || Number.isNaN(counts)) {
      this.leftOut += 1;
      return;
    }
    if (Number.isNaN(this.startS)) this.startS = moment;
    let s = moment - this.startS;
    // A time of day that starts over has passed midnight.
    if (isTimeOfDay(time) && s < (this.seconds[this.length - 1] ?? 0) - DAY_S / 2) s += DAY_S;
    if (this.length > 0 && s <= (this.seconds[this.length - 1] ?? 0)) {
      this.leftOut += 1;
      return;
    }
    if (this.length === this.seconds.length) {
      this.seconds = grown(this.seconds);
      this.psi.forEach((values, i) => (this.psi[i] = grown(values)));
    }
    this.seconds[this.length] = s;
    for (const [i, values] of this.psi.entries()) {
      values[this.length] = i === 0 ? counts : this.pressure(pressures, i);
    }
    this.length += 1;
  }

  private pressure(texts: readonly string[], i: number): number {
    return readPressure(texts[i] ?? '', this.pressureUnits[i] ?? 'psi');
  }

  /** One trace for each pressure, all at the same times. */
  traces(): Trace[] {
    const seconds = this.seconds.slice(0, this.length);
    return this.psi.map((psi) => ({ seconds, psi: psi.slice(0, this.length) }));
  }
}

const DAY_S = 86_400;
const isTimeOfDay = (text: string) => /^\d{1,2}:\d{2}:\d{2}/.test(text.trim());

function grown(values: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> {
  const more = new Float64Array(values.length * 2);
  more.set(values);
  return more;
}
