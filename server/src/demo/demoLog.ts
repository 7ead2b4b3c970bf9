import { newUnitDraft } from '@keen-bleed/core';
import { act, pump, RoutinePlayer, Twin, wait, type Routine } from '@keen-bleed/core/twin';

const PER_S = 10;
const KPA_PER_PSI = 6.894757;
const FULL_PSI = 150;

/** A test of a truck whose springs are off already. */
const recorded: Routine = [
  wait(5),
  act({ kind: 'engine', rpm: 2100 }),
  { step: 'at', s: 140 },
  act({ kind: 'engine', rpm: 650 }),
  {
    step: 'repeat',
    steps: pump(60, 2, 6),
    until: { latch: 'governor', high: false },
    most: 20,
  },
  wait(30),
  act({ kind: 'engine', rpm: 2100 }),
  { step: 'at', s: 260 },
  act({ kind: 'engine', rpm: 0 }),
  { step: 'at', s: 420 },
  ...pump(FULL_PSI, 90, 5),
  // Until there is no more to pump.
  {
    step: 'repeat',
    steps: pump(FULL_PSI, 2, 2),
    until: { needle: 'primary tank', under: 5 },
    most: 20,
  },
];

/** A made-up truck's test as a logger would have recorded it: a CSV of ten readings a second, in kPa. */
export function makeLog(): string {
  const twin = new Twin(
    {
      unit: {
        id: '00000000-0000-7000-8000-000000000000',
        revision: 1,
        retiredAtMs: null,
        ...newUnitDraft('truck', 2018),
        number: '0',
        name: 'truck',
      },
      towed: [],
    },
    { tanksPsi: 80 },
  );
  twin.dash('park valve', true);
  twin.advanceTo(20);
  const player = new RoutinePlayer(twin, recorded);
  const rows = ['time_s,Primary (kPa),Secondary (kPa)'];
  for (let n = 0; !player.done; n += 1) {
    player.advanceTo(20 + n / PER_S);
    const kpa = (place: string) => (twin.psi(place) * KPA_PER_PSI).toFixed(1);
    rows.push(`${(n / PER_S).toFixed(1)},${kpa('primary tank')},${kpa('secondary tank')}`);
  }
  return rows.join('\n');
}
