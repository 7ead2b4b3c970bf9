import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line } from '../graded';
import {
  fault,
  leak,
  narrowed,
  OUT_OF_REACH_PSI,
  seat,
  seatShare,
  setBy,
  shut,
  watery,
} from './makers';
import { conductanceOf, LEAST_SCFM, PASSES_PUMPED } from './scales';

/** What can be wrong between the compressor's intake and the supply tank. */
export function supplyFaults(twin: Twin, freezes: boolean): Fault[] {
  return [
    ...compressorFaults(),
    ...governorFaults(),
    ...dryerFaults(twin, freezes),
    narrowed(
      'discharge',
      { part: 'discharge line', title: 'narrowed by carbon or ice', hard: 2 },
      'narrowed: discharge',
      PASSES_PUMPED,
    ),
    leak('discharge line', {
      part: 'discharge line',
      title: 'leaks while the compressor loads',
      hard: 2,
    }),
    seat(twin, 'supply drain', {
      part: 'supply tank drain',
      title: 'does not close',
      hard: 3,
      prior: 2,
    }),
    leak('supply tank', {
      part: 'supply tank',
      title: 'leaks: the checks hide it from the dash',
      hard: 3,
    }),
    watery('supply tank', 'supply tank'),
    seat(twin, 'safety valve', { part: 'safety valve', title: 'does not seal', hard: 3 }),
    fault(
      'safety valve low',
      'safety valve',
      { part: 'safety valve', title: 'set low: it blows before cut-out', hard: 1, prior: 0.3 },
      [{ does: 'shift', way: 'safety valve', psi: line(22, 60) }],
    ),
  ];
}

/*
 * Three ways to deliver too little, each with a shape of its own: worn rings pass back more the higher the pressure
 * and the slower the turns, an unloader that stays open costs a share of each stroke that grows with pressure, and a
 * blocked intake costs more the faster it turns.
 */
function compressorFaults(): Fault[] {
  return [
    fault(
      'compressor worn',
      'compressor',
      { part: 'compressor', title: 'worn: air goes back past its rings and valves', hard: 1 },
      [
        {
          does: 'compressor',
          rings: { from: conductanceOf(LEAST_SCFM * 10), to: conductanceOf(12), on: 'log' },
        },
      ],
    ),
    fault(
      'unloader partly open',
      'compressor',
      { part: 'compressor unloader', title: 'partly open while it should load', hard: 2 },
      [{ does: 'compressor', extraClearance: { from: 0.01, to: 0.22, on: 'log' } }],
    ),
    fault(
      'intake blocked',
      'compressor',
      { part: 'compressor intake', title: 'blocked: it draws too little', hard: 2 },
      [{ does: 'compressor', intake: { from: 0.04, to: 0.7, on: 'log' } }],
    ),
    leak(
      'governor line',
      { part: 'compressor unloader', title: 'its pistons leak while unloaded', hard: 3 },
      'unloader piston',
    ),
    shut('unloader stuck', 'governor feed', {
      part: 'compressor unloader',
      title: 'stuck loaded: the safety valve ends the climb',
      hard: 1,
      prior: 0.5,
    }),
  ];
}

function governorFaults(): Fault[] {
  const part = 'governor';
  return [
    setBy('governor high', 'governor', { part, title: 'set too high', hard: 1 }, line(4, 20)),
    setBy('governor low', 'governor', { part, title: 'set too low', hard: 1 }, line(-4, -25)),
    fault(
      'governor stuck',
      'governor',
      { part, title: 'stuck: it does not cut out', hard: 1, prior: 0.5 },
      [{ does: 'set', latch: 'governor', highBy: OUT_OF_REACH_PSI }],
    ),
    fault(
      'governor narrow',
      'governor',
      { part, title: 'cuts in too soon: it short-cycles', hard: 2 },
      [{ does: 'set', latch: 'governor', lowBy: line(3, 18) }],
    ),
    fault('governor wide', 'governor', { part, title: 'cuts in too late', hard: 2, prior: 0.5 }, [
      { does: 'set', latch: 'governor', lowBy: line(-4, -25) },
    ]),
    narrowed('governor feed', {
      part: 'governor sense line',
      title: 'narrowed: it cuts out late',
      hard: 2,
      prior: 0.5,
    }),
    narrowed('governor exhaust', {
      part: 'governor exhaust',
      title: 'sluggish: it cuts in late',
      hard: 2,
      prior: 0.5,
    }),
    leak('governor line', { part: 'governor line', title: 'leaks', hard: 3 }),
  ];
}

function dryerFaults(twin: Twin, freezes: boolean): Fault[] {
  const part = 'dryer purge valve';
  const found = [
    narrowed(
      'dryer outlet check',
      { part: 'dryer', title: 'its cartridge is blocked', hard: 2, prior: 0.5 },
      'narrowed: dryer outlet check',
      PASSES_PUMPED,
    ),
    fault(
      'desiccant spent',
      'dryer',
      { part: 'dryer', title: 'its desiccant is spent: water comes through', hard: 3, prior: 2 },
      [{ does: 'dry', share: line(0.9, 0.1) }],
    ),
    seat(twin, 'purge valve', {
      part,
      title: 'does not seal while the compressor loads',
      hard: 3,
      prior: 2,
    }),
    fault(
      'outlet check',
      'dryer outlet check',
      {
        part: 'dryer outlet check valve',
        title: 'lets the supply tank back through the purge',
        hard: 2,
      },
      [
        {
          does: 'hold open',
          way: 'dryer outlet check',
          share: seatShare(twin, 'dryer outlet check'),
        },
      ],
    ),
  ];
  if (twin.hasWay('regeneration valve')) {
    found.push(
      seat(twin, 'regeneration valve', {
        part: 'dryer regeneration valve',
        title: 'does not shut: the purge goes on taking from the service tank',
        hard: 2,
      }),
    );
  }
  if (freezes) {
    found.push(
      narrowed('purge valve', { part, title: 'iced: water stays in', hard: 2 }, 'purge iced'),
    );
  }
  return found;
}
