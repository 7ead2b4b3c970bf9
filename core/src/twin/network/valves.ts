import { OUTSIDE, type NetworkBuilder, type Opening } from './network';
import { pa } from './pascal';

/** Pressure from shut to open of a brake valve's seat, Pa: its rubber and springs. */
export const SEAT_PA = 35_000;
/** Between the inlet's closing and the exhaust's opening, Pa: the valve holds ("laps"). */
export const LAP_PA = 2000;

/** Pedal or hand: meters from a tank into a delivery, and lets off, each to what is asked for. */
export function meteringValve(
  net: NetworkBuilder,
  name: string,
  asked: number,
  tank: number,
  delivery: number,
  conductance: number,
): void {
  net.way(`${name}: inlet`, tank, delivery, conductance, [
    {
      on: [
        [asked, 1],
        [delivery, -1],
      ],
      biasPa: 0,
      bandPa: SEAT_PA,
    },
  ]);
  net.way(`${name}: exhaust`, delivery, OUTSIDE, conductance * 1.5, [
    {
      on: [
        [delivery, 1],
        [asked, -1],
      ],
      biasPa: -LAP_PA,
      bandPa: SEAT_PA,
    },
  ]);
}

interface RelayOptions {
  crackPsi?: number;
  conductance: number;
  /** More that drives it, weights on nodes. */
  also?: readonly (readonly [node: number, weight: number])[];
}

/** A relay valve: what its control asks, from its own tank; nothing under its crack pressure; off, on, hold. */
export function relayValve(
  net: NetworkBuilder,
  name: string,
  control: number,
  tank: number,
  delivery: number,
  { crackPsi = 4, conductance, also = [] }: RelayOptions,
): void {
  const openings: Opening[] = [
    {
      on: [[control, 1], [delivery, -1], ...also],
      biasPa: 0,
      bandPa: SEAT_PA,
    },
  ];
  if (crackPsi > 0) {
    openings.push({ on: [[control, 1]], biasPa: -pa(crackPsi), bandPa: pa(1) });
  }
  net.way(`${name}: inlet`, tank, delivery, conductance, openings);
  net.way(`${name}: exhaust`, delivery, OUTSIDE, conductance * 2, [
    {
      on: [[delivery, 1], [control, -1], ...also.map(([node, weight]) => [node, -weight] as const)],
      biasPa: -LAP_PA,
      bandPa: SEAT_PA,
    },
  ]);
}

/** A quick-release valve: passes air on, and lets it off at the chambers as soon as its feed falls. */
export function quickRelease(
  net: NetworkBuilder,
  name: string,
  feed: number,
  delivery: number,
  conductance: number,
): void {
  net.check(`${name}: inlet`, feed, delivery, conductance, 1_000);
  net.way(`${name}: exhaust`, delivery, OUTSIDE, conductance, [
    {
      on: [
        [delivery, 1],
        [feed, -1],
      ],
      biasPa: -LAP_PA,
      bandPa: SEAT_PA,
    },
  ]);
}

/** What an empty axle gets of a loaded one's pressure [textbook: 0.3 to 0.5]. */
const EMPTY_SHARE = 0.4;

/**
 * A load-sensing valve: of its control it gives so much as the axle carries.
 *
 * @param load 0 empty to 1 laden
 */
export function loadSensing(
  net: NetworkBuilder,
  name: string,
  control: number,
  delivery: number,
  tank: number,
  load: number,
): void {
  const ratio = EMPTY_SHARE + (1 - EMPTY_SHARE) * Math.min(1, Math.max(0, load));
  net.way(`${name}: inlet`, tank, delivery, 8, [
    {
      on: [
        [control, ratio],
        [delivery, -1],
      ],
      biasPa: 0,
      bandPa: SEAT_PA,
    },
  ]);
  net.way(`${name}: exhaust`, delivery, OUTSIDE, 12, [
    {
      on: [
        [delivery, 1],
        [control, -ratio],
      ],
      biasPa: -LAP_PA,
      bandPa: SEAT_PA,
    },
  ]);
}
