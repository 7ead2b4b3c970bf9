import type { AnyFact, Unit, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import type { DemoVisit } from './demoVisits';
import type { SeededRandom } from '../random/seededRandom';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

interface Around {
  kept: ReadonlyMap<string, Unit>;
  staff: readonly { id: string; signInName: string }[];
  random: SeededRandom;
  todayMs: number;
}

/** A made-up visit as it would have come in: each person by a lane of their own. */
export function demoVisitFacts(
  demo: DemoVisit,
  { kept, staff, random, todayMs }: Around,
): { header: VisitHeader; made: VisitFact[]; people: (fact: AnyFact | null) => string } {
  const unitOf = (number: string): Unit => {
    const unit = kept.get(number);
    if (!unit) throw new Error(`a demo visit names unit ${number}, which is not there`);
    return unit;
  };
  const personOf = (name: string): string => {
    const person = staff.find((each) => each.signInName === name);
    if (!person) throw new Error(`a demo visit names ${name}, who is not there`);
    return person.id;
  };
  const aheadMs = (demo.clockAheadMin ?? 0) * MINUTE_MS;
  const midnightMs = Math.floor(todayMs / DAY_MS) * DAY_MS;
  const openedMs = Math.round(midnightMs - demo.daysAgo * DAY_MS + demo.hour * 3_600_000);
  const units = demo.numbers.map(unitOf);
  const header: VisitHeader = {
    id: random.uuid(openedMs),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: units[0]?.id ?? '', rigId: null, partId: null },
    startedAtMs: openedMs + aheadMs,
    offsetMs: aheadMs,
    coreVersion: CORE_VERSION,
    made: { units, reason: demo.reason },
  };
  const lanes = new Map<string, { lane: string; seq: number; personId: string }>();
  const stamp = (by: string, afterMin: number) => {
    const atMs = openedMs + afterMin * MINUTE_MS;
    const lane = lanes.get(by) ?? { lane: random.uuid(openedMs), seq: 0, personId: personOf(by) };
    lane.seq += 1;
    lanes.set(by, lane);
    const offsetMs = by === demo.openedBy ? aheadMs : 0;
    return {
      id: random.uuid(atMs),
      lane: lane.lane,
      seq: lane.seq,
      atMs: atMs + offsetMs,
      offsetMs,
      v: VISIT_VERSION,
    };
  };
  const made = demo.entries.map(
    ({ by, afterMin, text, at, standing, check, complaintId, hunt }): VisitFact => {
      if (complaintId !== undefined) {
        const unitId = units[0]?.id ?? '';
        return { ...stamp(by, afterMin), kind: 'complaint', unitId, complaintId, text };
      }
      const place = at ? { unitId: unitOf(at.number).id, partId: at.partId } : null;
      if (hunt?.kind === 'mended') {
        if (!place) throw new Error(`a mend of the demo names no part: ${text}`);
        return { ...stamp(by, afterMin), at: place, ...hunt, text };
      }
      if (hunt) return { ...stamp(by, afterMin), unitId: units[0]?.id ?? '', ...hunt, text };
      if (place && check) {
        return { ...stamp(by, afterMin), kind: 'check', at: place, ...check, said: text };
      }
      return place && standing
        ? { ...stamp(by, afterMin), kind: 'seen', at: place, standing, text }
        : { ...stamp(by, afterMin), kind: 'note', at: place, text };
    },
  );
  if (demo.closedAfterMin !== undefined) {
    made.push({ ...stamp(demo.openedBy, demo.closedAfterMin), kind: 'close' });
  }
  const byLane = new Map([...lanes.values()].map(({ lane, personId }) => [lane, personId]));
  return {
    header,
    made,
    people: (fact) => (fact && byLane.get(fact.lane)) ?? personOf(demo.openedBy),
  };
}
