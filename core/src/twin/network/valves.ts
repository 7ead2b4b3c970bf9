import { OUTSIDE, type NetworkBuilder, type Opening } from './network';
import { pa } from './pascal';

/** Pressure from shut to open of a brake valve's seat, Pa: its rubber and springs. */
export const SEAT_PA = 35_000;
/** Between the inlet's closing and the exhaust's opening, Pa: the valve holds ("laps"). */
export const LAP_PA = 2000;
/** A relay's seals drag the more the more air presses on them: it lets go this much over what its control asks. */
const RELAY_DRAG = 0.035;

/**
 * Pedal or hand: meters from a tank into a delivery, and lets off, each to what is asked for.
 *
 * @param name of the valve, or of one half of it
 * @param part whose seats these are
 */
export function meteringValve(
  net: NetworkBuilder,
  name: string,
  part: string,
  asked: number,
  tank: number,
  delivery: number,
  conductance: number,
): void {
  seats(net, name, part, {
    inlet: [
      tank,
      delivery,
      conductance,
      [
        {
          on: [
            [asked, 1],
            [delivery, -1],
          ],
          biasPa: 0,
          bandPa: SEAT_PA,
        },
      ],
    ],
    exhaust: [
      delivery,
      conductance * 2,
      {
        on: [
          [delivery, 1],
          [asked, -1],
        ],
        biasPa: -LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
}

/** The two seats of a valve that meters. */
function seats(
  net: NetworkBuilder,
  valve: string,
  part: string,
  {
    inlet: [from, to, conductance, openings],
    exhaust: [out, outConductance, opening],
  }: {
    inlet: readonly [from: number, to: number, conductance: number, openings: readonly Opening[]];
    exhaust: readonly [from: number, conductance: number, opening: Opening];
  },
): void {
  net.way(`${valve}: inlet`, from, to, conductance, { does: 'inlet', valve, part, openings });
  net.way(`${valve}: exhaust`, out, OUTSIDE, outConductance, {
    does: 'exhaust',
    valve,
    part,
    openings: [opening],
  });
}

interface RelayOptions {
  crackPsi?: number;
  conductance: number;
  /** What else bounds its delivery, in place of a crack pressure. */
  most?: Opening;
}

/** A relay valve: what its control asks, from its own tank; nothing under its crack pressure; off, on, hold. */
export function relayValve(
  net: NetworkBuilder,
  name: string,
  part: string,
  control: number,
  tank: number,
  delivery: number,
  { crackPsi = 4, conductance, most }: RelayOptions,
): void {
  const openings: Opening[] = [
    {
      on: [
        [control, 1],
        [delivery, -1],
      ],
      biasPa: 0,
      bandPa: SEAT_PA,
    },
  ];
  if (most) openings.push(most);
  else if (crackPsi > 0) {
    openings.push({ on: [[control, 1]], biasPa: -pa(crackPsi), bandPa: pa(1) });
  }
  seats(net, name, part, {
    inlet: [tank, delivery, conductance, openings],
    exhaust: [
      delivery,
      conductance * 2,
      {
        on: [
          [delivery, 1],
          [control, -1 - RELAY_DRAG],
        ],
        biasPa: -LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
}

/** Most that holds the springs off, so that what a lost primary lets out starts from a known pressure [trade], psi. */
export const HOLD_OFF_MOST_PSI = 95;
/** Hold-off that the modulating valve lets out for each psi of front brake. */
const MODULATES = 2.75;

interface ParkRelayPorts {
  control: number;
  tank: number;
  delivery: number;
  frontSignal: number;
  primary: number;
}

/**
 * A park relay with the spring brake modulating valve [trade]: hold-off up to 95 psi. The valve is at rest while the
 * primary tank is over some 65 psi; under 50 to 55 the front brakes' pressure reaches it and lets hold-off out in
 * proportion, so that the pedal still brakes the rear.
 */
export function modulatedParkRelay(
  net: NetworkBuilder,
  conductance: number,
  { control, tank, delivery, frontSignal, primary }: ParkRelayPorts,
): void {
  const part = 'modulating-valve';
  const signal = net.node('modulating signal', 0.05, { part });
  /* Wide enough that the signal follows the pedal: where it only seeps in, a hair of primary pressure decides. */
  net.way('modulating valve: control', frontSignal, signal, 8, {
    part,
    openings: [{ on: [[primary, -1]], biasPa: pa(58), bandPa: pa(8) }],
  });
  net.way('modulating valve: rest', signal, OUTSIDE, 2, {
    does: 'exhaust',
    part,
    openings: [{ on: [[primary, 1]], biasPa: -pa(60), bandPa: pa(4) }],
  });
  const most: Opening = {
    on: [
      [delivery, -1],
      [signal, -MODULATES],
    ],
    biasPa: pa(HOLD_OFF_MOST_PSI),
    bandPa: SEAT_PA,
  };
  relayValve(net, 'park relay', 'park-relay', control, tank, delivery, { conductance, most });
  net.way('modulating valve: exhaust', delivery, OUTSIDE, conductance * 2, {
    does: 'exhaust',
    part,
    openings: [
      {
        on: [
          [delivery, 1],
          [signal, MODULATES],
        ],
        biasPa: -pa(HOLD_OFF_MOST_PSI) - LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
}

/** A quick-release valve: passes air on, and lets it off at the chambers as soon as its feed falls. */
export function quickRelease(
  net: NetworkBuilder,
  name: string,
  part: string,
  feed: number,
  delivery: number,
  conductance: number,
): void {
  net.check(`${name}: inlet`, feed, delivery, conductance, {
    crackPa: 1_000,
    does: 'inlet',
    valve: name,
    part,
  });
  net.way(`${name}: exhaust`, delivery, OUTSIDE, conductance, {
    does: 'exhaust',
    valve: name,
    part,
    openings: [
      {
        on: [
          [delivery, 1],
          [feed, -1],
        ],
        biasPa: -LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
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
  part: string,
  {
    control,
    delivery,
    supply,
    load,
  }: { control: number; delivery: number; supply: number; load: number },
): void {
  const ratio = EMPTY_SHARE + (1 - EMPTY_SHARE) * Math.min(1, Math.max(0, load));
  seats(net, name, part, {
    inlet: [
      supply,
      delivery,
      8,
      [
        {
          on: [
            [control, ratio],
            [delivery, -1],
          ],
          biasPa: 0,
          bandPa: SEAT_PA,
        },
      ],
    ],
    exhaust: [
      delivery,
      12,
      {
        on: [
          [delivery, 1],
          [control, -ratio],
        ],
        biasPa: -LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
}

/** One circuit of a four-circuit protection valve: opens at about 7 bar, shuts one that has fallen under about 4.5. */
export function protectedBy(
  net: NetworkBuilder,
  name: string,
  part: string,
  supply: number,
  circuit: number,
): void {
  net.way(name, supply, circuit, 3, {
    does: 'check',
    part,
    openings: [
      {
        on: [
          [supply, 1],
          [circuit, -1],
        ],
        biasPa: -3_000,
        bandPa: 6_000,
      },
      {
        on: [
          [supply, 0.65],
          [circuit, 0.35],
        ],
        biasPa: -450_000,
        bandPa: 20_000,
      },
    ],
  });
}
