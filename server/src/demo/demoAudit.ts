import type { AuditedAct } from '@keen-bleed/contract';
import type { audit } from '../db/schema';
import type { SeededRandom } from '../random/seededRandom';

const DAY_MS = 86_400_000;

/** What went on beside the records in the weeks before the demo's day: days ago, hour, who, what, about. */
const STORY: readonly (readonly [number, number, string, AuditedAct, string])[] = [
  [38, 8.1, 'Maren Osk', 'person-added', 'Paula Quill, viewer, signs in as paula'],
  [37, 7.4, 'Paula Quill', 'signed-in', 'Chrome on Android phone'],
  [24, 16.2, 'Maren Osk', 'role', 'Paula Quill: viewer to technician'],
  [19, 2.3, 'somebody', 'refused', 'as Maren Osk'],
  [19, 2.31, 'somebody', 'refused', 'as Maren Osk'],
  [19, 2.33, 'somebody', 'refused', 'as Maren Osk'],
  [19, 7.6, 'Maren Osk', 'signed-in', 'Firefox on Windows'],
  [19, 7.7, 'Maren Osk', 'password', 'their own'],
  [12, 9.5, 'Idris Fenn', 'exported', 'run-21-brake-test.pdf'],
  [6, 11.2, 'Maren Osk', 'unit-edited', 'Tipper 21, revision 2'],
  [1, 6.9, 'Idris Fenn', 'signed-in', 'Chrome on Android phone'],
];
/** Where they came from: the shop's own network, and once somebody else's. */
const INSIDE = '192.168.20.14';
const OUTSIDE = '203.0.113.40';

/** The demo world's audit trail. */
export function demoAudit(
  shopId: string,
  idOf: (name: string) => string | null,
  random: SeededRandom,
  todayMs: number,
): (typeof audit.$inferInsert)[] {
  const midnightMs = Math.floor(todayMs / DAY_MS) * DAY_MS;
  return STORY.map(([daysAgo, hour, by, what, about]) => {
    const atMs = Math.round(midnightMs - daysAgo * DAY_MS + hour * 3_600_000);
    return {
      ...{ shopId, by, what, about },
      id: random.uuid(atMs),
      at: new Date(atMs),
      personId: idOf(by),
      address: what === 'refused' ? OUTSIDE : INSIDE,
    };
  });
}
