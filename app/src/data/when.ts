import type { Due } from '@keen-bleed/core';

const DAY_MS = 86_400_000;

/** Formats of the shop's zone; until one is told, the device's own. */
let formats = formatsIn(undefined);

function formatsIn(timeZone: string | undefined) {
  const format = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { ...options, timeZone });
  return {
    day: format({ day: 'numeric', month: 'short', year: 'numeric' }),
    month: format({ month: 'long', year: 'numeric' }),
    time: format({ hour: '2-digit', minute: '2-digit', second: '2-digit' }),
    minute: format({ hour: '2-digit', minute: '2-digit' }),
  };
}

/** Says every time in the shop's zone from now on, wherever the device is. */
export function sayTimesIn(timeZone: string): void {
  try {
    formats = formatsIn(timeZone);
  } catch {
    // A browser that does not know the zone says times in its own.
  }
}

/** A date such as `24 Nov 2026`. */
export function sayDay(atMs: number): string {
  return formats.day.format(atMs);
}

/** A month such as `May 2027`. */
export function sayMonth(atMs: number): string {
  return formats.month.format(atMs);
}

/** A time of day to the minute: what a note needs, where a reading needs its second. */
export function sayMinute(atMs: number): string {
  return formats.minute.format(atMs);
}

/** A time of day to the second. */
export function sayTime(atMs: number): string {
  return formats.time.format(atMs);
}

const midnight = (atMs: number) => new Date(atMs).setHours(0, 0, 0, 0);

/** How long ago, as people say it. */
export function sayAgo(atMs: number, nowMs: number): string {
  const days = Math.round((midnight(nowMs) - midnight(atMs)) / DAY_MS);
  if (days <= 0) return 'today';
  if (days === 1) return 'yesterday';
  if (days < 60) return `${days} days ago`;
  return sayDay(atMs);
}

/** When the next test is due, as people say it. */
export function sayDue(due: Due): string {
  if (due.inDays === null) return 'never tested';
  if (due.inDays < 0)
    return due.inDays === -1 ? 'overdue since yesterday' : `overdue by ${-due.inDays} days`;
  if (due.inDays === 0) return 'due today';
  if (due.inDays === 1) return 'due tomorrow';
  return `due in ${due.inDays} days`;
}

/** Minutes and seconds, such as `1:05`; a hold's clock rounds up, so that it shows 0:00 only when over. */
export function sayClock(ms: number): string {
  const seconds = Math.ceil(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
