import type { Check } from '../checks/check';
import type { Fault } from '../twin/faults/fault';

/** A row of the trade's own table: what is found, what it points at, and the check that tells these apart. */
export interface Symptom {
  id: string;
  /** What is found, as a mechanic says it. */
  found: string;
  /** Open failures that say so, by how their keys begin. */
  failures: readonly string[];
  /** What it points at, in the table's order: faults by their ids, without the unit they are on. */
  suspects: readonly RegExp[];
  /** The check that tells them apart, in words. */
  check: string;
  /** Checks of the catalogue that do it. */
  does: (check: Check) => boolean;
}

const listens =
  (...states: string[]) =>
  ({ doing, state }: Check) =>
    doing.does === 'listen' && states.includes(state.id);

/** The trade's table of diagnosis [common practice, no source]; a second opinion that needs no model. */
export const symptoms: readonly Symptom[] = [
  {
    id: 'slow-build-up',
    found: 'Slow build-up, nothing heard',
    failures: ['figure:build-up', 'figure:free-air-delivery'],
    suspects: [
      /^compressor worn$/,
      /^intake blocked$/,
      /^narrowed: discharge$/,
      /^unloader partly open$/,
      /^narrowed: dryer outlet check$/,
    ],
    check:
      'Read the pressure at the compressor while it loads, and look at its intake and discharge line.',
    does: ({ doing, id }) =>
      doing.does === 'build' ||
      (doing.does === 'read' && doing.place === 'discharge line') ||
      /look\/(intake|discharge)$/.test(id),
  },
  {
    id: 'past-cut-out',
    found: 'Climbs past cut-out, safety valve blows',
    failures: ['figure:cut-out', 'look:cut-out'],
    suspects: [/^governor (high|stuck|low)$/, /^narrowed: governor feed$/, /^unloader stuck$/],
    check: 'Read the signal at the unloader port.',
    does: ({ doing }) =>
      doing.does === 'governor' || (doing.does === 'read' && doing.place === 'governor line'),
  },
  {
    id: 'cycles-often',
    found: 'Cycles often, dash steady, brakes untouched',
    failures: ['figure:governor-cycle', 'figure:governor-differential', 'figure:cut-in'],
    suspects: [
      /^seat: purge valve$/,
      /^outlet check$/,
      /^seat: supply drain$/,
      /^leak: discharge line$/,
      /^leak: governor line$/,
      /^seat: safety valve$/,
      /^leak: supply tank$/,
      /^governor (narrow|wide)$/,
    ],
    check: 'Listen at the purge valve while it loads, and again after the purge.',
    does: ({ doing }) => doing.does === 'listen' && doing.way === 'purge valve',
  },
  {
    id: 'falls-parked',
    found: 'A dash gauge falls with the brakes off the springs or on',
    failures: ['figure:static-leak', 'figure:static-loss'],
    suspects: [
      /^leak: (primary|secondary) tank$/,
      /^seat: (primary|secondary) drain$/,
      /^seat: foot valve, .*: inlet$/,
      /relay: inlet$/,
      /^pierced: accessory take-off$/,
      /^leak: (#\d+ )?spring line$/,
      /^centre seal: /,
      /^seat: park (relay|valve): exhaust$/,
      /^leak: (trailer |#\d+ )?supply line$/,
    ],
    check:
      'Watch it parked, then with the park brake released, then with red pulled: what starts the fall says where.',
    does: ({ doing }) => doing.does === 'fall',
  },
  {
    id: 'falls-applied',
    found: 'Falls only with the pedal down',
    failures: ['figure:applied-leak', 'figure:applied-loss'],
    suspects: [
      /^leak: (#\d+ )?(rear|front)?.*left$/,
      /^seat: .*: exhaust$/,
      /^pierced: .*modulator: exhaust$/,
      /^leak: (trailer |#\d+ )?service line$/,
    ],
    check: 'See which gauge falls, and listen at each exhaust with the pedal held.',
    does: listens('applied'),
  },
  {
    id: 'warning',
    found: 'Warning late or never',
    failures: ['figure:warning', 'look:warning'],
    suspects: [/warning/],
    check: 'Check the dash against a master gauge first; then the switch and its wire.',
    does: ({ doing, id }) =>
      (doing.does === 'switches' && doing.latch.endsWith('warning')) || id.includes('look/wiring'),
  },
  {
    id: 'pop-out',
    found: 'Pops out late, early or never',
    failures: ['figure:pop-out', 'look:pop-out'],
    suspects: [/^park valve (low|high)$/, /^trailer supply (low|high|stuck)$/],
    check:
      'Check the dash against a master gauge first; then let the tanks down slowly and read again.',
    does: ({ doing }) => doing.does === 'switches' && doing.latch.endsWith('valve'),
  },
  {
    id: 'stop-lamp',
    found: 'Stop lamps late, never or always',
    failures: ['figure:stop-lamp', 'look:stop-lamp'],
    suspects: [/stop lamp/],
    check: 'Bridge the switch: if the lamps come on, the switch is at fault; if not, the wire.',
    does: ({ doing, id }) =>
      doing.does === 'lights' || doing.does === 'lamp' || id.includes('look/wiring'),
  },
  {
    id: 'secondary-goes-too',
    found: 'With one tank drained, another falls too',
    failures: ['look:fail-supply', 'look:fail-primary', 'look:fail-secondary'],
    suspects: [/^(primary|secondary) check$/, /^dash double check$/, /^modulating valve dead$/],
    check: 'Drain supply only, and watch each tank for a minute.',
    does: ({ doing }) => doing.does === 'drained',
  },
  {
    id: 'trailer-no-release',
    found: 'The trailer does not release, or gets no supply',
    failures: ['figure:trailer-supply', 'figure:coupling-supply', 'look:trailer-supply'],
    suspects: [/^#\d+ crossed$/, /^#\d+ cock$/, /^#\d+ supply iced$/],
    check:
      'Look which coupler is on which and how the cocks stand, then feel for air at the last coupler.',
    does: ({ doing }) => doing.does === 'couplers' || doing.does === 'cock',
  },
  {
    id: 'pulls-right',
    found: 'Pulls right: the left side brakes less',
    failures: ['look:service-stop/stop/pull-right', 'look:holding/stop/pull-right'],
    suspects: [
      /^long stroke: .*left$/,
      /^kinked: .*left hose$/,
      /^leak: (#\d+ )?(rear|front)?.*left$/,
    ],
    check: 'Measure the strokes of the left side, then time its chambers against the right.',
    does: ({ doing }) => doing.does === 'stroke' || doing.does === 'time',
  },
  {
    id: 'long-stop',
    found: 'Stops long, or does not stop',
    failures: [
      'figure:stop-braking',
      'look:service-stop/stop/long',
      'look:service-stop/stop/no-stop',
      'look:service-stop/distance',
    ],
    suspects: [
      /^long stroke: /,
      /^(rear )?relay crack$/,
      /^narrowed: .*(control line|service line)$/,
      /^kinked: /,
      /^quick-release blocked$/,
    ],
    check:
      'Measure every stroke at full pedal, then the curve of control and delivery at the relay.',
    does: ({ doing }) =>
      doing.does === 'stroke' || doing.does === 'compare' || doing.does === 'time',
  },
  {
    id: 'couplers',
    found: 'Coupler seals perished, or air heard at them',
    failures: ['look:couplers'],
    suspects: [/^leak: (#\d+ )?(supply|service) line$/],
    check: 'Wet both couplers, the blue one with the pedal held.',
    does: ({ doing }) => doing.does === 'wet' && / ?(supply|service) line$/.test(doing.place),
  },
];

/** What an open failure points at on a rig, by the table. */
export interface Pointed {
  symptom: Symptom;
  /** Faults of this rig that the row names, in its order. */
  suspects: readonly Fault[];
  /** Checks of this rig that tell them apart, the quickest first. */
  checks: readonly Check[];
}

/**
 * What the trade's table says of an open failure; null where it has no row for it.
 *
 * @param key of the failure: `figure:static-leak`, or `look:couplers/seals`
 * @param faults what may be wrong with the rig
 * @param checks its catalogue
 */
export function pointsAt(
  key: string,
  faults: readonly Fault[],
  checks: readonly Check[],
): Pointed | null {
  const symptom = symptoms.find(({ failures }) =>
    failures.some((begins) => key.startsWith(begins)),
  );
  if (!symptom) return null;
  const suspects = symptom.suspects.flatMap((row) => faults.filter(({ id }) => row.test(id)));
  return {
    symptom,
    suspects: [...new Set(suspects)],
    checks: checks
      .filter(symptom.does)
      .sort((a, b) => a.minutes + a.state.minutes - b.minutes - b.state.minutes),
  };
}
