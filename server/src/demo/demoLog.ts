import { newUnitDraft } from '@keen-bleed/core';
import { Twin } from '@keen-bleed/core/twin';

const PER_S = 10;
const KPA_PER_PSI = 6.894757;
const FULL_PSI = 150;

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
  const rows = ['time_s,Primary (kPa),Secondary (kPa)'];
  let n = 0;
  const to = (untilS: number) => {
    for (; n / PER_S < untilS; n += 1) {
      twin.advanceTo(20 + n / PER_S);
      const kpa = (place: string) => (twin.psi(place) * KPA_PER_PSI).toFixed(1);
      rows.push(`${(n / PER_S).toFixed(1)},${kpa('primary tank')},${kpa('secondary tank')}`);
    }
  };
  const pump = (psi: number, downS: number, upS: number) => {
    twin.ask('pedal', psi);
    to(n / PER_S + downS);
    twin.ask('pedal', 0);
    to(n / PER_S + upS);
  };
  to(5);
  twin.engine(2100);
  to(140);
  twin.engine(650);
  while (twin.isHigh('governor')) pump(60, 2, 6);
  to(n / PER_S + 30);
  twin.engine(2100);
  to(260);
  twin.engine(0);
  to(420);
  pump(FULL_PSI, 90, 5);
  for (let count = 0; count < 20; count += 1) pump(FULL_PSI, 2, 2);
  return rows.join('\n');
}
