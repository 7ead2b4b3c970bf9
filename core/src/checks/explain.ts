import type { PartRole } from '../rig/partsOf';
import { portsOf } from '../rig/plumbing/ports';
import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import { deviceStates, type DeviceState } from '../twin/senses/deviceStates';
import { Twin } from '../twin/twin';
import { bring, press, wait, waitFor } from './bring';
import { STATES } from './states';

/** A step of what a part does, with what stands at its ports then. */
export interface ExplainedStep {
  title: string;
  /** The valve's own state, where it meters. */
  state: DeviceState | null;
  /** By port, in words: title, its number in the numbered school, psi. */
  ports: readonly { title: string; number: string | null; psi: number }[];
}

/** What a part does on this rig, with the twin's numbers. */
export interface Explained {
  steps: readonly ExplainedStep[];
  /** Until 60 psi at the axle it feeds, as it is and without it, s; null where it is no relay. */
  lag: { withIt: number; without: number } | null;
}

type Move = readonly [title: string, does: (twin: Twin) => void];

const settle = (twin: Twin) => wait(twin, 4);
const PEDAL: readonly Move[] = [
  ['Pedal up', () => undefined],
  [
    'Pedal going down to 30 psi',
    (twin) => {
      press(twin, 30);
      wait(twin, 0.12);
    },
  ],
  ['Held at 30 psi', settle],
  [
    'Let go',
    (twin) => {
      press(twin, 0);
      wait(twin, 0.15);
    },
  ],
];
const PARK: readonly Move[] = [
  ['Parked', () => undefined],
  [
    'Park brake being released',
    (twin) => {
      twin.dash('park valve', true);
      wait(twin, 0.6);
    },
  ],
  ['Released', (twin) => wait(twin, 20)],
  [
    'Being parked',
    (twin) => {
      twin.dash('park valve', false);
      wait(twin, 0.4);
    },
  ],
];
const SUPPLY: readonly Move[] = [
  ['Compressor loading', () => undefined],
  [
    'At cut-out',
    (twin) => {
      waitFor(twin, () => twin.isHigh('governor'), 150, 0.2);
      wait(twin, 0.4);
    },
  ],
  ['Unloaded, half a minute later', (twin) => wait(twin, 30)],
];
const TRAILER: readonly Move[] = [
  ['Red in, pedal up', () => undefined],
  [
    'Red in, pedal at 30 psi',
    (twin) => {
      press(twin, 30);
      wait(twin, 4);
    },
  ],
  [
    'Red pulled, pedal at 30 psi',
    (twin) => {
      twin.dash('trailer supply valve', false);
      wait(twin, 6);
    },
  ],
];
const LOST: readonly Move[] = [
  ['Charged', () => undefined],
  [
    'Supply tank drained',
    (twin) => {
      if (twin.hasWay('supply drain')) twin.open('supply drain', 1);
      wait(twin, 60);
    },
  ],
];

/** What moves each role, and the state the rig stands in first. */
function movesOf(role: PartRole): readonly [start: keyof typeof STATES, moves: readonly Move[]] {
  switch (role) {
    case 'compressor':
    case 'governor':
    case 'dryer':
    case 'pre-cleaner':
    case 'safety-valve':
      return ['loading', SUPPLY];
    case 'park-relay':
    case 'park-control':
    case 'hand-brake-valve':
      return ['parked', PARK];
    case 'check-valve':
    case 'tank':
    case 'drain':
    case 'low-air-switch':
    case 'gauge':
      return ['parked', LOST];
    case 'tractor-protection':
    case 'trailer-supply-control':
    case 'trailer-control-valve':
    case 'coupler':
    case 'cock':
      return ['released', TRAILER];
    default:
      return ['released', PEDAL];
  }
}

/** Runs a rig's twin through what moves a part and tells what stands at its ports: sound, as it is described. */
export function explainPart(rig: RigUnderTest, unit: number, partId: string): Explained {
  const described = unitsOf(rig)[unit];
  const part = described && plumbingOf(described).parts.find(({ id }) => id === partId);
  if (!part) return { steps: [], lag: null };
  const [start, moves] = movesOf(part.role);
  const twin = new Twin(rig, { tanksPsi: 100 });
  bring(twin, STATES[start]);
  const steps = moves.map(([title, does]): ExplainedStep => {
    does(twin);
    return {
      title,
      state: stateOf(twin, unit, partId),
      ports: portsAt(twin, unit, part.id, part.role),
    };
  });
  return { steps, lag: part.role === 'relay' ? lagOf(rig, unit, partId) : null };
}

function stateOf(twin: Twin, unit: number, part: string): DeviceState | null {
  const way = twin.system.network.elements.find(
    (each) => each.unit === unit && each.part === part && each.does === 'inlet',
  );
  return way ? (deviceStates(twin).find(({ id }) => id === way.valve?.id)?.state ?? null) : null;
}

function portsAt(twin: Twin, unit: number, part: string, role: PartRole): ExplainedStep['ports'] {
  const { ports, nodes } = twin.system.network;
  return ports
    .filter((port) => port.unit === unit && port.part === part)
    .map(({ port, node }) => {
      const known = portsOf(role).find(({ id }) => id === port);
      return {
        title: known?.title.replace(/, opening 1$/, '') ?? 'Air',
        number: known?.number ?? null,
        psi: Math.max(0, twin.psi(nodes[node]!.id)),
      };
    });
}

/** Until 60 psi at the chambers a relay feeds, with it and with the line run straight through. */
function lagOf(rig: RigUnderTest, unit: number, part: string): Explained['lag'] {
  const without = unitsOf(rig).map((each, at) =>
    at === unit
      ? {
          ...each,
          parts: [
            ...(each.parts ?? []).filter(({ partId }) => partId !== part),
            { partId: part, standing: 'not-fitted' as const, foundAtMs: 0 },
          ],
        }
      : each,
  );
  const [first, ...towed] = without;
  if (!first) return null;
  const time = (of: RigUnderTest) => {
    const twin = new Twin(of, { tanksPsi: 110 });
    const chamber = twin.system.network.nodes.find(
      (node) =>
        node.unit === unit &&
        node.kind === 'service chamber' &&
        (unit > 0 || node.role.startsWith('rear')),
    );
    if (!chamber) return NaN;
    bring(twin, STATES.released);
    press(twin, 90);
    const from = twin.timeS;
    waitFor(twin, () => twin.psi(chamber.id) >= 60, 15, 0.01);
    return twin.timeS - from;
  };
  return { withIt: time(rig), without: time({ unit: first, towed }) };
}
