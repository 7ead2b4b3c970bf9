import { holeConductance } from '../equations/flow';
import type { Twin } from '../twin';
import { between, blocked, leak, OUT_OF_REACH_PSI, seat, type Fault } from './fault';
import { loadFaults } from './loadFaults';

/** What a released foot valve lets its exhaust open by, psi: a fault that holds it must first take that away. */
const RELEASED_PSI = 6;

/** What can be wrong with the circuits, the foot valve and the dash controls of a powered unit. */
export function circuitFaults(twin: Twin): Fault[] {
  const found: Fault[] = [];
  const each = (place: string, make: () => Fault[]) => {
    if (twin.hasPlace(place)) found.push(...make());
  };
  each('primary tank', () => [
    leak('primary tank', 'primary tank', 'leaks at its drain or a joint', 1),
    seat('primary drain', 'primary tank drain', 'does not close', 1, 0.02),
    {
      id: 'foot valve stays',
      at: 'foot valve, primary: exhaust',
      part: 'foot valve',
      title: 'does not come back whole: the brakes drag',
      hard: 2,
      apply: (on, severity) => {
        for (const half of ['primary', 'secondary'] as const) {
          const by = between(4, 10, severity);
          on.shift(`foot valve, ${half}: exhaust`, -by - RELEASED_PSI);
        }
      },
    },
    seat('foot valve, primary: exhaust', 'foot valve', 'leaks at its exhaust, applied', 2),
    seat('foot valve, primary: inlet', 'foot valve', 'its primary inlet does not seal', 2, 0.01),
    seat('rear relay: inlet', 'rear relay', 'its inlet does not seal', 2, 0.01),
    seat('rear relay: exhaust', 'rear relay', 'its exhaust does not seal', 2),
    {
      id: 'rear relay crack',
      at: 'rear relay: inlet',
      part: 'rear relay',
      title: 'opens late: its crack pressure is not that of the others',
      hard: 3,
      apply: (on, severity) => on.shift('rear relay: inlet', -between(4, 9, severity), 1),
    },
    {
      id: 'primary check',
      at: 'primary check',
      part: 'primary supply check valve',
      title: 'does not hold the tank',
      hard: 3,
      apply: (on, severity) => on.holdOpen('primary check', between(0.02, 0.3, severity)),
    },
    {
      id: 'warning low',
      at: 'primary warning',
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
      at: 'primary warning',
      part: 'low-pressure switch',
      title: 'never warns: its wire is off',
      hard: 1,
      apply: (on) => {
        for (const circuit of ['primary', 'secondary'] as const) {
          if (on.hasPlace(`${circuit} tank`)) {
            on.setPoints(`${circuit} warning`, {
              lowBy: -OUT_OF_REACH_PSI,
              highBy: -OUT_OF_REACH_PSI,
            });
          }
        }
      },
    },
    {
      id: 'warning always',
      at: 'primary warning',
      part: 'low-pressure switch',
      title: 'warns for ever: its wire touches the frame',
      hard: 1,
      apply: (on) => {
        for (const circuit of ['primary', 'secondary'] as const) {
          if (on.hasPlace(`${circuit} tank`))
            on.setPoints(`${circuit} warning`, {
              lowBy: OUT_OF_REACH_PSI,
              highBy: OUT_OF_REACH_PSI,
            });
        }
      },
    },
    {
      id: 'stop lamp dead',
      at: 'stop lamp',
      part: 'stop-lamp switch',
      title: 'does not close: its wire is off',
      hard: 1,
      apply: (on) =>
        on.setPoints('stop lamp', { lowBy: OUT_OF_REACH_PSI, highBy: OUT_OF_REACH_PSI }),
    },
    {
      id: 'stop lamp late',
      at: 'stop lamp',
      part: 'stop-lamp switch',
      title: 'closes late',
      hard: 2,
      apply: (on, severity) => {
        const by = between(6, 20, severity);
        on.setPoints('stop lamp', { lowBy: by, highBy: by });
      },
    },
  ]);
  // A unit may have no chambers at one of its ends.
  each('rear left', () => [
    {
      ...leak('rear left', 'rear left', 'a chamber diaphragm leaks on the service side', 2),
      oneSide: true,
    },
  ]);
  each('front left', () => [
    { ...leak('front left', 'front left', 'a front hose or diaphragm leaks', 2), oneSide: true },
  ]);
  each('secondary tank', () => [
    leak('secondary tank', 'secondary tank', 'leaks at its drain or a joint', 1),
    seat('front quick-release: exhaust', 'front quick-release', 'its exhaust does not seal', 2),
    {
      id: 'quick-release blocked',
      at: 'front quick-release: exhaust',
      part: 'front quick-release',
      title: 'its exhaust is blocked: the front drags',
      hard: 2,
      apply: (on, severity) =>
        on.block('front quick-release: exhaust', between(0.05, 0.005, severity)),
    },
    {
      id: 'secondary check',
      at: 'secondary check',
      part: 'secondary supply check valve',
      title: 'does not hold the tank',
      hard: 3,
      apply: (on, severity) => on.holdOpen('secondary check', between(0.02, 0.3, severity)),
    },
  ]);
  if (twin.hasWay('rear control line')) {
    found.push(
      blocked(
        'rear control line',
        'rear relay control line',
        'restricted: the axle is late',
        3,
        0.01,
        0.002,
      ),
    );
  }
  for (const axle of ['', 'front ']) {
    if (twin.hasWay(`${axle}load-sensing valve: inlet`)) found.push(...loadFaults(axle, axle));
  }
  if (twin.hasWay('dash double check: first')) {
    found.push({
      id: 'dash double check',
      at: 'dash double check: first',
      part: 'double check valve',
      title: 'passes from one circuit into the other',
      hard: 3,
      apply: (on, severity) => {
        for (const side of ['first', 'second']) {
          on.holdOpen(`dash double check: ${side}`, between(0.02, 0.2, severity));
        }
      },
    });
  }
  each('spring line', () => [
    leak(
      'spring line',
      'spring line',
      'leaks on the spring side: only with the park brake released',
      2,
    ),
    {
      id: 'centre seal',
      at: 'rear left centre seal',
      part: 'spring brake chamber',
      title: 'its centre seal passes hold-off air into the service side',
      hard: 3,
      oneSide: true,
      apply: (on, severity) =>
        on.pierce('rear left centre seal', holeConductance(between(0.4, 1.4, severity))),
    },
    seat('park relay: exhaust', 'park relay', 'its exhaust does not seal, released', 2),
    seat('park relay: inlet', 'park relay', 'its inlet does not seal, parked', 2, 0.01),
  ]);
  if (twin.hasWay('park valve: exhaust')) {
    found.push(
      seat('park valve: exhaust', 'park valve', 'leaks at its exhaust, pushed in', 2),
      {
        id: 'park valve low',
        at: 'park valve',
        part: 'park valve',
        title: 'pops out too late',
        hard: 1,
        apply: (on, severity) => on.setPoints('park valve', { lowBy: -between(18, 30, severity) }),
      },
      {
        id: 'park valve high',
        at: 'park valve',
        part: 'park valve',
        title: 'pops out too early',
        hard: 1,
        apply: (on, severity) => on.setPoints('park valve', { lowBy: between(12, 30, severity) }),
      },
    );
  }
  if (twin.hasWay('hand brake valve: exhaust')) {
    found.push(seat('hand brake valve: exhaust', 'hand brake valve', 'leaks at 3, released', 2));
  }
  each('trailer supply line', () => [
    leak('trailer supply line', 'trailer supply line', 'leaks: only with the trailer supplied', 2),
  ]);
  if (twin.hasLatch('trailer supply valve')) {
    found.push(
      {
        id: 'trailer supply stuck',
        at: 'trailer supply valve',
        part: 'trailer supply valve',
        title: 'stuck: it does not pop out',
        hard: 1,
        apply: (on) => on.setPoints('trailer supply valve', { lowBy: -OUT_OF_REACH_PSI }),
      },
      seat('trailer supply valve: exhaust', 'trailer supply valve', 'leaks at its exhaust', 2),
      seat('tractor protection', 'tractor protection valve', 'does not shut', 3, 0.3),
      {
        id: 'hand valve on',
        at: 'hand valve: inlet',
        part: 'hand valve',
        title: 'not fully off: air at the service coupler',
        hard: 2,
        apply: (on, severity) => {
          const by = between(2, 7, severity) + RELEASED_PSI;
          on.shift('hand valve: inlet', by);
          on.shift('hand valve: exhaust', -by);
        },
      },
    );
  }
  if (twin.hasWay('trailer control valve: inlet')) {
    found.push(
      seat(
        'trailer control valve: inlet',
        'trailer control valve',
        'its inlet does not seal: air at the service coupler',
        2,
        0.01,
      ),
      seat('trailer control valve: exhaust', 'trailer control valve', 'leaks at 3', 2),
      blocked(
        'hand brake valve: drive',
        'trailer control valve, port 43',
        'its line is narrowed: the trailer releases late',
        3,
      ),
    );
  }
  return found;
}
