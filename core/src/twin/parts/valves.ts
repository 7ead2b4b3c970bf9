import { OUTSIDE, type NetworkBuilder, type Opening } from '../network';
import { pa } from './pascal';

/** Pressure from shut to open of a brake valve's seat, Pa: its rubber and springs. */
const SEAT_PA = 35_000;
/** Between the inlet's closing and the exhaust's opening, Pa: the valve holds ("laps"). */
const LAP_PA = 2000;

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
  /** Delivered for one of control, under 1 where a load-sensing valve holds back. */
  ratio?: number;
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
  { crackPsi = 4, conductance, ratio = 1, also = [] }: RelayOptions,
): void {
  const openings: Opening[] = [
    {
      on: [[control, ratio], [delivery, -1], ...also],
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
      on: [
        [delivery, 1],
        [control, -ratio],
        ...also.map(([node, weight]) => [node, -weight] as const),
      ],
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
