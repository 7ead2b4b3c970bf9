import { nextDue } from '@keen-bleed/core';
import { sayAgo, sayClock, sayDue } from './when';

const day = 86_400_000;
const noon = new Date(2026, 10, 24, 12).getTime();

describe('times as people say them', () => {
  it('count days by midnights, not by hours', () => {
    expect(sayAgo(noon - 11 * 3_600_000, noon)).toBe('today');
    expect(sayAgo(noon - 13 * 3_600_000, noon)).toBe('yesterday');
    expect(sayAgo(noon - 9 * day, noon)).toBe('9 days ago');
    expect(sayAgo(noon - 90 * day, noon)).toMatch(/^26 Aug 2026$/);
  });

  it('say what is due, and by how much it is late', () => {
    const said = (daysToGo: number) => sayDue(nextDue(0, 90, (90 - daysToGo) * day));
    expect([said(12.5), said(1.5), said(0.5), said(-0.5), said(-3)]).toEqual([
      'due in 12 days',
      'due tomorrow',
      'due today',
      'overdue since yesterday',
      'overdue by 3 days',
    ]);
    expect(sayDue(nextDue(null, 90, 0))).toBe('never tested');
  });

  it('show 0:00 only when a hold is over', () => {
    expect([sayClock(60_000), sayClock(59_001), sayClock(400), sayClock(0)]).toEqual([
      '1:00',
      '1:00',
      '0:01',
      '0:00',
    ]);
  });
});
