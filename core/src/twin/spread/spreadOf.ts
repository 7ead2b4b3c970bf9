import { unitsOf, type RigUnderTest } from '../../rig/rigUnderTest';
import { hasCompressor } from '../../rig/hasCompressor';
import { conductanceOf } from '../faults/scales';
import { line, ratios, type GradedEffect } from '../graded';
import { OUTSIDE, type WayDoes } from '../network/network';
import { placeInfo } from '../network/placeKinds';
import { HOLD_OFF_MOST_PSI } from '../network/valves';
import { Twin } from '../twin';
import type { Nuisance } from './nuisance';

/*
 * How sound rigs differ from their paper: starting values [trade, from memory]. ± is one standard deviation, ×÷ one
 * of the logarithm; each is cut off at two.
 */
const DISPLACEMENT_UNKNOWN = Math.exp(0.35);
const DISPLACEMENT_BY_HISTORY = Math.exp(0.08);
const WALL = 1.6;
const FILM = 1.6;
const BORES_TOGETHER = 1.6;
const BORE_EACH = 1.3;
const LEAK_MEDIAN_SCFM = 0.03;
const LEAK = 2.5;
const LEAST_LEAK_SCFM = 0.005;
const MOST_LEAK_SCFM = 0.12;
const TANK_ENTERED = 0.05;
const TANK_GUESSED = 0.2;
const WATER_MOST = 0.15;
/** Share of its stroke that an axle uses. */
const STROKE = { mean: 0.6, by: 0.2 } as const;
const HOLD_OFF = { mean: 92, by: 3 } as const;
const POP_OUT = { mean: 36, by: 4 } as const;
const WARNING = { mean: 62, by: 3 } as const;
const CRACK_BY = 0.5;
/** Of a part that somebody looked for and could not tell, each figure is so many times less sure. */
const NOT_KNOWN = { bore: 1.9, volume: 0.2, crack: 6, set: 2.5 } as const;
/** What was read off a part holds within this, psi. */
const READ_OFF_BY = 1.5;
const CUT_OUT_BY = 3;
const DIFFERENTIAL_BY = 2.5;

/** Ways that are no bore of metal, or pass nothing in a sound rig. */
const NO_BORE: ReadonlySet<WayDoes> = new Set([
  'drain',
  'crossed',
  'open end',
  'seal',
  'shop valve',
  'cock',
  'coupler',
  'test position',
]);

/** What is known of a rig beyond its description. */
export interface Known {
  /** Its compressor's displacement is known by its own earlier build-ups. */
  byHistory?: boolean;
  /** Its tanks were entered, not guessed. */
  tanksEntered?: boolean;
}

/** In what sound rigs described like this one differ, figure by figure. */
export function spreadOf(
  rig: RigUnderTest,
  { byHistory = false, tanksEntered = true }: Known = {},
): Nuisance[] {
  const twin = new Twin(rig);
  const known = standingOf(rig);
  return [
    ...(hasCompressor(rig.unit.kind) ? displacement(byHistory) : []),
    ...bores(twin, known),
    ...tanks(twin, known, tanksEntered ? TANK_ENTERED : TANK_GUESSED),
    ...leaks(twin),
    ...strokes(twin),
    ...setPoints(twin, known),
    ...valves(twin, known),
  ];
}

/** How a part of the rig is known, by its unit's place in the rig and its id. */
type Standing = (at: { unit: number; part: string | null }) => 'not known' | 'read off' | 'usual';

/** A rig's parts by how they were found: what nobody has looked at is taken to be as usual. */
function standingOf(rig: RigUnderTest): Standing {
  const units = unitsOf(rig).map(
    ({ parts = [] }) => new Map(parts.map((record) => [record.partId, record])),
  );
  return ({ unit, part }) => {
    const record = units[unit]?.get(part ?? '');
    if (record?.standing === 'not-known') return 'not known';
    return record?.setPsi === undefined ? 'usual' : 'read off';
  };
}

const displacement = (byHistory: boolean): Nuisance[] => [
  {
    id: 'displacement',
    law: 'normal',
    does: [
      {
        does: 'compressor',
        swept: ratios(1, byHistory ? DISPLACEMENT_BY_HISTORY : DISPLACEMENT_UNKNOWN),
      },
    ],
  },
];

function bores({ system }: Twin, known: Standing): Nuisance[] {
  const bored = system.network.elements.filter(
    ({ does, conductance }) => conductance > 0 && !NO_BORE.has(does),
  );
  const ways = bored.map(({ id }) => id);
  const wider = (way: string, by: number): GradedEffect => ({
    does: 'bore',
    way,
    times: ratios(1, by),
  });
  return [
    { id: 'bores', law: 'normal', does: ways.map((way) => wider(way, BORES_TOGETHER)) },
    ...bored.map((way): Nuisance => ({
      id: `bore: ${way.id}`,
      law: 'normal',
      does: [wider(way.id, known(way) === 'not known' ? NOT_KNOWN.bore : BORE_EACH)],
    })),
  ];
}

const tankNodes = ({ system }: Twin) =>
  system.network.nodes.filter(({ kind, unit }) => placeInfo(kind).isTank && unit >= 0);

const tankPlaces = (twin: Twin): string[] => tankNodes(twin).map(({ id }) => id);

function tanks(twin: Twin, known: Standing, usual: number): Nuisance[] {
  const places = tankPlaces(twin);
  const unknown = new Set(
    tankNodes(twin)
      .filter((node) => known(node) === 'not known')
      .map(({ id }) => id),
  );
  return [
    {
      id: 'walls',
      law: 'normal',
      does: places.map((place) => ({ does: 'wall', place, film: 1, heat: ratios(1, WALL) })),
    },
    {
      id: 'films',
      law: 'normal',
      does: places.map((place) => ({ does: 'wall', place, film: ratios(1, FILM), heat: 1 })),
    },
    ...places.flatMap((place): Nuisance[] => [
      {
        id: `volume: ${place}`,
        law: 'normal',
        does: [
          {
            does: 'volume',
            place,
            times: line(1, 1 + (unknown.has(place) ? Math.max(usual, NOT_KNOWN.volume) : usual)),
          },
        ],
      },
      {
        id: `water: ${place}`,
        law: 'even',
        does: [{ does: 'volume', place, times: line(1, 1 - WATER_MOST) }],
      },
    ]),
  ];
}

/** A seepage in deviations from the median: beyond its least and most a rig is not sound. */
const deviations = (scfm: number) => Math.log(scfm / LEAK_MEDIAN_SCFM) / Math.log(LEAK);

/** Each circuit loses a little, at its tank: what a sound rig has at its joints. */
const leaks = (twin: Twin): Nuisance[] =>
  tankPlaces(twin).map((place) => ({
    id: `seepage: ${place}`,
    law: 'normal',
    least: deviations(LEAST_LEAK_SCFM),
    most: deviations(MOST_LEAK_SCFM),
    does: [
      {
        does: 'seep',
        place,
        conductance: ratios(
          conductanceOf(LEAK_MEDIAN_SCFM),
          conductanceOf(LEAK_MEDIAN_SCFM * LEAK),
        ),
      },
    ],
  }));

function strokes({ system }: Twin): Nuisance[] {
  const groups = new Map<string, string[]>();
  for (const { id, kind, part, unit } of system.network.nodes) {
    if (kind !== 'service chamber') continue;
    const axle = `${unit} ${part ?? ''}`;
    groups.set(axle, [...(groups.get(axle) ?? []), id]);
  }
  return [...groups.values()].map((places) => ({
    id: `stroke: ${places[0] ?? ''}`,
    law: 'normal',
    does: places.map((place) => ({
      does: 'stroke',
      place,
      times: line(1, 1 + STROKE.by / STROKE.mean),
    })),
  }));
}

function setPoints({ system }: Twin, known: Standing): Nuisance[] {
  const PSI = 6_894.757;
  return system.network.latches.flatMap((latch): Nuisance[] => {
    const { id, role, lowPa, highPa } = latch;
    const standing = known(latch);
    const times = standing === 'not known' ? NOT_KNOWN.set : 1;
    const about = ({ mean, by }: { mean: number; by: number }) => {
      // What was read off a part is where the twin has it.
      if (standing === 'read off') return line(0, READ_OFF_BY);
      const at = mean - lowPa / PSI;
      return line(at, at + by * times);
    };
    switch (role) {
      case 'knob':
        return Number.isFinite(lowPa)
          ? [
              {
                id: `pop-out: ${id}`,
                law: 'normal',
                does: [{ does: 'set', latch: id, lowBy: about(POP_OUT) }],
              },
            ]
          : [];
      case 'low-air switch':
        return [
          {
            id: `warning: ${id}`,
            law: 'normal',
            does: [{ does: 'set', latch: id, lowBy: about(WARNING), highBy: about(WARNING) }],
          },
        ];
      case 'governor':
        return Number.isFinite(highPa)
          ? [
              {
                id: 'cut-out',
                law: 'normal',
                does: [
                  {
                    does: 'set',
                    latch: id,
                    lowBy: line(0, CUT_OUT_BY * times),
                    highBy: line(0, CUT_OUT_BY * times),
                  },
                ],
              },
              {
                id: 'differential',
                law: 'normal',
                does: [{ does: 'set', latch: id, lowBy: line(0, -DIFFERENTIAL_BY * times) }],
              },
            ]
          : [];
      default:
        return [];
    }
  });
}

function valves(twin: Twin, known: Standing): Nuisance[] {
  const found: Nuisance[] = twin.system.network.elements
    .filter(
      ({ does, valve, openings, to }) =>
        does === 'inlet' && valve !== null && to !== OUTSIDE && openings[1]?.on.length === 1,
    )
    .map((way) => ({
      id: `crack: ${way.id}`,
      law: 'normal',
      does: [
        {
          does: 'shift',
          way: way.id,
          psi: line(0, known(way) === 'not known' ? CRACK_BY * NOT_KNOWN.crack : CRACK_BY),
          opening: 1,
        },
      ],
    }));
  if (twin.hasWay('modulating valve: exhaust')) {
    const off = HOLD_OFF.mean - HOLD_OFF_MOST_PSI;
    found.push({
      id: 'hold-off',
      law: 'normal',
      does: [
        { does: 'shift', way: 'park relay: inlet', psi: line(off, off + HOLD_OFF.by), opening: 1 },
        { does: 'shift', way: 'modulating valve: exhaust', psi: line(-off, -off - HOLD_OFF.by) },
      ],
    });
  }
  return found;
}
