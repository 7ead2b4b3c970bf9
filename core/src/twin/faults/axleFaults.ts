import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line } from '../graded';
import { fault, leak, narrowed, pierced, seat } from './makers';

/** A relay's crack pressure is off by so much, psi: a 10 psi valve in place of a 4 psi one is 6. */
const CRACK_OFF = line(-1.5, -10);

/**
 * What can be wrong at the wheels of one axle group, told for its left side.
 *
 * @param at how its places begin, such as 'rear left'
 * @param called what people call it
 */
export function wheelFaults(twin: Twin, at: string, called: string): Fault[] {
  if (!twin.hasPlace(at)) return [];
  const found: Fault[] = [
    leak(at, {
      part: called,
      title: 'a chamber diaphragm or its hose leaks on the service side',
      hard: 2,
      oneSide: true,
      prior: 2,
    }),
    narrowed(
      `${at} hose`,
      { part: called, title: 'its hose is kinked: that wheel is late', hard: 3, oneSide: true },
      `kinked: ${at} hose`,
    ),
    fault(
      `long stroke: ${at}`,
      at,
      {
        part: called,
        title: 'out of adjustment: its stroke is long',
        hard: 3,
        oneSide: true,
        prior: 2,
      },
      [{ does: 'stroke', place: at, times: line(1.1, 1.65) }],
    ),
  ];
  if (twin.hasPlace(`${at} spring`)) {
    found.push(
      pierced(
        `${at} centre seal`,
        {
          part: `${called} spring brake chamber`,
          title: 'its centre seal passes hold-off air into the service side',
          hard: 3,
          oneSide: true,
        },
        `centre seal: ${at}`,
      ),
    );
  }
  return found;
}

/** What can be wrong with a service relay; `of` begins its ids. */
export function relayFaults(twin: Twin, of: string, part: string): Fault[] {
  return [
    seat(twin, `${of}: inlet`, { part, title: 'its inlet does not seal', hard: 2 }),
    seat(twin, `${of}: exhaust`, { part, title: 'its exhaust does not seal, applied', hard: 2 }),
    narrowed(`${of}: exhaust`, { part, title: 'its exhaust is blocked: it drags', hard: 2 }),
    fault(
      `${of} crack`,
      `${of}: inlet`,
      {
        part,
        title: 'opens late: it sticks, or one with another crack pressure was fitted',
        hard: 3,
      },
      [{ does: 'shift', way: `${of}: inlet`, psi: CRACK_OFF, opening: 1 }],
    ),
  ];
}

/** An antilock modulator that lets off what it should hold. */
export const modulatorLeak = (way: string, part: string): Fault =>
  pierced(way, { part, title: 'leaks at its exhaust, applied', hard: 2, prior: 0.5 });
