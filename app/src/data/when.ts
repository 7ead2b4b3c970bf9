import type { Due } from '@keen-bleed/core';

const DAY_MS = 86_400_000;

const dayFormat = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
});
const timeFormat = new Intl.DateTimeFormat('en-GB', {
  hour: '2-digit',
  minute: '2-digit',
  second: '2-digit',
});

/** A date such as `24 Nov 2026`. */
export function sayDay(atMs: number): string {
  return dayFormat.format(atMs);
}

const monthFormat = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric' });

/** A month such as `May 2027`. */
export function sayMonth(atMs: number): string {
  return monthFormat.format(atMs);
}

const minuteFormat = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** A time of day to the minute: what a note needs, where a reading needs its second. */
export function sayMinute(atMs: number): string {
  return minuteFormat.format(atMs);
}

/** A time of day to the second. */
export function sayTime(atMs: number): string {
  return timeFormat.format(atMs);
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
