import { between, blocked, leak, OUT_OF_REACH_PSI, seat, type Fault } from './fault';

/** What can be wrong between the compressor's intake and the supply tank. */
export const supplyFaults: readonly Fault[] = [
  {
    id: 'compressor worn',
    at: 'compressor',
    part: 'compressor',
    title: 'worn: it delivers less than it should',
    hard: 1,
    apply: (twin, severity) => (twin.system.delivers *= between(0.7, 0.3, severity)),
  },
  {
    id: 'unloader partly open',
    at: 'compressor',
    part: 'compressor unloader',
    title: 'partly open while it should load',
    hard: 2,
    apply: (twin, severity) => (twin.system.delivers *= between(0.8, 0.5, severity)),
  },
  {
    id: 'discharge blocked',
    at: 'discharge',
    part: 'discharge line',
    title: 'narrowed by carbon or ice',
    hard: 2,
    apply: (twin, severity) => twin.block('discharge', between(0.09, 0.035, severity)),
  },
  {
    id: 'governor high',
    at: 'governor',
    part: 'governor',
    title: 'set too high',
    hard: 1,
    apply: (twin, severity) => {
      const by = between(8, 18, severity);
      twin.setPoints('governor', { lowBy: by, highBy: by });
    },
  },
  {
    id: 'governor low',
    at: 'governor',
    part: 'governor',
    title: 'set too low',
    hard: 1,
    apply: (twin, severity) => {
      const by = -between(8, 20, severity);
      twin.setPoints('governor', { lowBy: by, highBy: by });
    },
  },
  {
    id: 'governor stuck',
    at: 'governor',
    part: 'governor',
    title: 'stuck: it does not cut out',
    hard: 1,
    apply: (twin) => twin.setPoints('governor', { highBy: OUT_OF_REACH_PSI }),
  },
  {
    id: 'governor narrow',
    at: 'governor',
    part: 'governor',
    title: 'cuts in too soon: it short-cycles',
    hard: 2,
    apply: (twin, severity) => twin.setPoints('governor', { lowBy: between(8, 16, severity) }),
  },
  {
    id: 'intake blocked',
    at: 'compressor',
    part: 'compressor intake',
    title: 'blocked: it draws too little',
    hard: 2,
    apply: (twin, severity) => (twin.system.delivers *= between(0.75, 0.35, severity)),
  },
  blocked('dryer outlet check', 'dryer', 'its cartridge is blocked', 2, 0.12, 0.04),
  {
    id: 'unloader stuck',
    at: 'governor feed',
    part: 'compressor unloader',
    title: 'stuck loaded: the safety valve ends the climb',
    hard: 1,
    apply: (twin) => twin.block('governor feed', 0),
  },
  blocked('governor feed', 'governor sense line', 'narrowed: it cuts out late', 2, 0.02, 0.004),
  blocked('governor exhaust', 'governor exhaust', 'sluggish: it cuts in late', 2, 0.01, 0.002),
  leak('discharge line', 'discharge line', 'leaks while the compressor loads', 2, 0.8, 2),
  seat('supply drain', 'supply tank drain', 'does not close', 3, 0.02),
  leak('supply tank', 'supply tank', 'leaks: the checks hide it from the dash', 3),
  leak('governor line', 'governor line', 'leaks', 3, 0.1, 0.4),
  seat('purge valve', 'dryer purge valve', 'does not seal while the compressor loads', 3, 0.02),
  {
    id: 'outlet check',
    at: 'dryer outlet check',
    part: 'dryer outlet check valve',
    title: 'lets the supply tank back through the purge',
    hard: 2,
    apply: (twin, severity) => twin.holdOpen('dryer outlet check', between(0.01, 0.1, severity)),
  },
  seat('safety valve', 'safety valve', 'does not seal', 3, 0.01),
];
