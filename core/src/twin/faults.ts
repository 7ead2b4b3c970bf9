import type { RigUnderTest } from '../rig/rigUnderTest';
import { holeConductance } from './flow';
import { Twin } from './twin';

/** How bad a fault is: from just there, 0, to as bad as it gets, 1. */
export type Severity = number;

/** Something that can be wrong with one part of a rig. */
export interface Fault {
  id: string;
  /** The part, by what it does. */
  part: string;
  /** What is wrong with it. */
  title: string;
  /** How hard it is to find: 1 shows on the dash at once, 3 only by a check made for it. */
  hard: 1 | 2 | 3;
  apply: (twin: Twin, severity: Severity) => void;
}

const between = (least: number, most: number, severity: Severity) =>
  least + (most - least) * Math.min(1, Math.max(0, severity));

/** A hole of `least` to `most` mm in a place. */
function leak(place: string, title: string, hard: Fault['hard'], least = 0.3, most = 1.6): Fault {
  return {
    id: `leak: ${place}`,
    part: place,
    title,
    hard,
    apply: (twin, severity) => twin.leak(place, holeConductance(between(least, most, severity))),
  };
}

/** A seat that does not close, by a share of its bore. */
function seat(way: string, part: string, title: string, hard: Fault['hard'], most = 0.03): Fault {
  return {
    id: `seat: ${way}`,
    part,
    title,
    hard,
    apply: (twin, severity) => twin.holdOpen(way, between(most / 10, most, severity)),
  };
}

const supplyFaults: readonly Fault[] = [
  {
    id: 'compressor worn',
    part: 'compressor',
    title: 'worn: it delivers less than it should',
    hard: 1,
    apply: (twin, severity) => (twin.system.delivers = between(0.7, 0.3, severity)),
  },
  {
    id: 'unloader partly open',
    part: 'compressor unloader',
    title: 'partly open while it should load',
    hard: 2,
    apply: (twin, severity) => (twin.system.delivers = between(0.8, 0.5, severity)),
  },
  {
    id: 'discharge blocked',
    part: 'discharge line',
    title: 'narrowed by carbon or ice',
    hard: 2,
    apply: (twin, severity) => twin.block('discharge', between(0.1, 0.05, severity)),
  },
  {
    id: 'governor high',
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
    part: 'governor',
    title: 'stuck: it does not cut out',
    hard: 1,
    apply: (twin) => twin.setPoints('governor', { stuck: true }),
  },
  {
    id: 'governor narrow',
    part: 'governor',
    title: 'cuts in too soon: it short-cycles',
    hard: 2,
    apply: (twin, severity) => twin.setPoints('governor', { lowBy: between(8, 16, severity) }),
  },
  leak('supply tank', 'leaks: the checks hide it from the dash', 3),
  leak('governor line', 'leaks', 3, 0.1, 0.4),
  seat('purge valve', 'dryer purge valve', 'does not seal while the compressor loads', 3, 0.02),
  {
    id: 'outlet check',
    part: 'dryer outlet check valve',
    title: 'lets the supply tank back through the purge',
    hard: 2,
    apply: (twin, severity) => twin.holdOpen('dryer outlet check', between(0.01, 0.1, severity)),
  },
  seat('safety valve', 'safety valve', 'does not seal', 3, 0.01),
];

function circuitFaults(twin: Twin): Fault[] {
  const found: Fault[] = [];
  const each = (place: string, make: () => Fault[]) => {
    if (twin.hasPlace(place)) found.push(...make());
  };
  each('primary tank', () => [
    leak('primary tank', 'leaks at its drain or a joint', 1),
    seat('foot valve, primary: exhaust', 'foot valve', 'leaks at its exhaust, applied', 2),
    seat('foot valve, primary: inlet', 'foot valve', 'its primary inlet does not seal', 2, 0.01),
    leak('rear left', 'a chamber diaphragm leaks on the service side', 2),
    seat('rear relay: inlet', 'rear relay', 'its inlet does not seal', 2, 0.01),
    seat('rear relay: exhaust', 'rear relay', 'its exhaust does not seal', 2),
    {
      id: 'rear relay crack',
      part: 'rear relay',
      title: 'opens late: its crack pressure is not that of the others',
      hard: 3,
      apply: (on, severity) => on.shift('rear relay: inlet', -between(4, 9, severity), 1),
    },
    {
      id: 'primary check',
      part: 'primary supply check valve',
      title: 'does not hold the tank',
      hard: 3,
      apply: (on, severity) => on.holdOpen('primary check', between(0.02, 0.3, severity)),
    },
    {
      id: 'warning low',
      part: 'low-pressure switch',
      title: 'warns too late',
      hard: 1,
      apply: (on, severity) => {
        for (const circuit of ['primary', 'secondary'] as const) {
          if (!on.hasPlace(`${circuit} tank`)) continue;
          on.setPoints(`${circuit} warning`, { lowBy: -between(10, 25, severity) });
        }
      },
    },
    {
      id: 'warning dead',
      part: 'low-pressure switch',
      title: 'never warns: its wire is off',
      hard: 1,
      apply: (on) => {
        for (const circuit of ['primary', 'secondary'] as const) {
          if (on.hasPlace(`${circuit} tank`)) on.setPoints(`${circuit} warning`, { stuck: true });
        }
      },
    },
  ]);
  each('secondary tank', () => [
    leak('secondary tank', 'leaks at its drain or a joint', 1),
    leak('front left', 'a front hose or diaphragm leaks', 2),
    seat('front quick-release: exhaust', 'front quick-release', 'its exhaust does not seal', 2),
    {
      id: 'quick-release blocked',
      part: 'front quick-release',
      title: 'its exhaust is blocked: the front drags',
      hard: 2,
      apply: (on, severity) =>
        on.block('front quick-release: exhaust', between(0.05, 0.005, severity)),
    },
    {
      id: 'secondary check',
      part: 'secondary supply check valve',
      title: 'does not hold the tank',
      hard: 3,
      apply: (on, severity) => on.holdOpen('secondary check', between(0.02, 0.3, severity)),
    },
  ]);
  each('spring line', () => [
    leak('spring line', 'leaks on the spring side: only with the park brake released', 2),
    {
      id: 'centre seal',
      part: 'spring brake chamber',
      title: 'its centre seal passes hold-off air into the service side',
      hard: 3,
      apply: (on, severity) =>
        on.pierce('rear left centre seal', holeConductance(between(0.4, 1.4, severity))),
    },
    {
      id: 'park valve low',
      part: 'park valve',
      title: 'pops out too late',
      hard: 1,
      apply: (on, severity) => on.setPoints('park valve', { lowBy: -between(18, 30, severity) }),
    },
  ]);
  each('trailer supply line', () => [
    leak('trailer supply line', 'leaks: only with the trailer supply in', 2),
    {
      id: 'trailer supply stuck',
      part: 'trailer supply valve',
      title: 'stuck: it does not pop out',
      hard: 1,
      apply: (on) => on.setPoints('trailer supply valve', { stuck: true }),
    },
    seat('hand valve: inlet', 'hand valve', 'not fully off: air at the service coupler', 2, 0.02),
  ]);
  return found;
}

/** What can be wrong on a rig: only faults of parts that it has. */
export function faultsOf(rig: RigUnderTest): Fault[] {
  const twin = new Twin(rig);
  const towed = twin.system.network.nodes
    .filter(({ name }) => name.endsWith(' tank') && !/^(supply|primary|secondary) /.test(name))
    .map(({ name }) => name.slice(0, -' tank'.length))
    .flatMap((name) => [
      leak(`${name} tank`, 'leaks at its drain or a joint', 2),
      leak(`${name} supply line`, 'its supply coupler seal leaks', 2),
      leak(`${name} service line`, 'its service coupler seal leaks, applied', 2),
      seat(`${name} relay: exhaust`, `${name} relay`, 'its exhaust does not seal', 2),
      seat(`${name} relay: inlet`, `${name} relay`, 'its inlet does not seal', 2, 0.01),
    ]);
  const powered = twin.hasPlace('governor line') ? supplyFaults : [];
  return [...powered, ...circuitFaults(twin), ...towed];
}
