import type { Fault } from '../twin/faults/fault';
import { noticedShare } from '../twin/faults/noticed';

/** What a driver says, in the words of the trade. */
export interface Complaint {
  id: string;
  title: string;
  /** Other words for the same. */
  also: readonly string[];
  /** How often a driver with such a fault says so: the first row that fits a fault's id [common practice, no source]. */
  said: readonly (readonly [fault: RegExp, share: number])[];
}

/** Said of rigs that have nothing to do with it. */
export const SAID_ANYHOW = 0.05;

/** Complaints in trade words. */
export const complaints: readonly Complaint[] = [
  {
    id: 'trailer-drags',
    title: 'The trailer drags',
    also: ['hot trailer brakes', 'smoke from the trailer', 'trailer holds back'],
    said: [
      [/^narrowed: #\d+ relay: exhaust/, 0.6],
      [/^hand valve on/, 0.6],
      [/^leak: #\d+ spring line/, 0.4],
      [/^#\d+ (cock|crossed|supply iced)/, 0.35],
      [/^centre seal: #|^foot valve stays|^seat: hand valve/, 0.25],
      [/^leak: (trailer|#\d+) supply line/, 0.15],
    ],
  },
  {
    id: 'trailer-pushes',
    title: 'The trailer pushes',
    also: ['trailer brakes late', 'trailer brakes weak', 'jackknife feel'],
    said: [
      [/^#\d+ relay crack/, 0.6],
      [/^(leak|kinked): #\d+ (left|service)/, 0.35],
      [/^long stroke: #/, 0.45],
      [/^leak: trailer service line/, 0.35],
      [/^#\d+ service cock|^#\d+ crossed/, 0.3],
      [/^seat: #\d+ relay: exhaust|^pierced: #/, 0.2],
    ],
  },
  {
    id: 'lamp-flashes',
    title: 'The low-air lamp flashes on the road',
    also: ['warning comes and goes', 'red lamp flickers'],
    said: [
      [/warning (always|dead)|warning low/, 0.25],
      [/^compressor worn|^narrowed: (discharge|dryer)|^intake|^unloader partly/, 0.3],
      [/^governor (low|wide)/, 0.4],
      [/^water:/, 0.15],
      [/^leak: |^seat: (primary|secondary|supply) drain/, 0.15],
    ],
  },
  {
    id: 'buzzer-at-start',
    title: 'The buzzer sounds at every start',
    also: ['tanks empty in the morning', 'no air overnight', 'leaks down overnight'],
    said: [
      [/^leak: (primary|secondary) tank|^seat: (primary|secondary) drain/, 0.6],
      [/^warning always/, 0.7],
      [/^seat: foot valve.*inlet|^seat: .*relay: inlet|^pierced: accessory/, 0.4],
      [/^(primary|secondary) check|^leak: supply tank|^seat: supply drain/, 0.25],
      [/^leak: #\d+ tank|^seat: park valve: feed/, 0.2],
    ],
  },
  {
    id: 'slow-to-build',
    title: 'Slow to build',
    also: ['takes ages to get air', 'long wait for pressure', 'compressor weak'],
    said: [
      [/^compressor worn|^intake blocked/, 0.6],
      [/^narrowed: (discharge|dryer outlet check)|^unloader partly/, 0.55],
      [/^leak: discharge line|^seat: (purge valve|supply drain)/, 0.4],
      [/^leak: supply tank|^seat: safety valve|^narrowed: (primary|secondary) check/, 0.3],
      [/^leak: (primary|secondary) tank|^seat: (primary|secondary) drain/, 0.25],
    ],
  },
  {
    id: 'short-cycles',
    title: 'The compressor short-cycles',
    also: ['dryer spits all the time', 'cuts in and out', 'governor hunts'],
    said: [
      [/^governor narrow/, 0.7],
      [/^outlet check|^regeneration|regeneration valve/, 0.55],
      [
        /^seat: (supply drain|safety valve)|^leak: (supply tank|governor line)|^unloader piston/,
        0.45,
      ],
      [/^leak: |^seat: .*(inlet|drain)/, 0.25],
      [/^water: supply/, 0.25],
    ],
  },
  {
    id: 'axle-late',
    title: 'One axle brakes late',
    also: ['front bites first', 'rear comes late', 'uneven wear between axles'],
    said: [
      [/^(rear|front) relay crack|^narrowed: .*control line/, 0.6],
      [/^kinked: |^long stroke: /, 0.3],
      [/^#\d+ relay crack/, 0.25],
    ],
  },
  {
    id: 'pulls',
    title: 'Pulls to one side',
    also: ['drifts when braking', 'steers itself'],
    said: [
      [/^kinked: (front|rear)/, 0.5],
      [/^long stroke: (front|rear)/, 0.4],
      [/^leak: (front|rear) left/, 0.3],
      [/^kinked: |^long stroke: /, 0.15],
    ],
  },
  {
    id: 'stay-on',
    title: 'The brakes stay on',
    also: ['will not release', 'hot drums', 'drags after braking'],
    said: [
      [/^foot valve stays|^quick-release blocked|^narrowed: .*relay: exhaust/, 0.6],
      [/anti-compounding check: first|^#\d+ (crossed|cock|supply iced)/, 0.6],
      [/^leak: (#\d+ )?spring line|^leak: park line|^modulating valve on/, 0.3],
      [/^centre seal/, 0.25],
    ],
  },
  {
    id: 'blows',
    title: 'Air blows at a valve',
    also: ['hissing', 'leaks at an exhaust', 'constant hiss'],
    said: [
      [/^seat: |^outlet check|^safety valve low/, 0.5],
      [/^centre seal|^pierced: .*modulator|^unloader (stuck|piston)|^governor stuck/, 0.4],
      [/^hand valve on|^leak: (trailer|#\d+) /, 0.25],
      [/^leak: /, 0.2],
      [/dash double check$/, 0.2],
    ],
  },
  {
    id: 'water',
    title: 'Water in the tanks',
    also: ['drains spit water', 'oil and water', 'emulsion'],
    said: [
      [/^desiccant/, 0.7],
      [/^water: /, 0.6],
      [/iced|^compressor worn/, 0.15],
    ],
  },
  {
    id: 'freezes',
    title: 'Freezes in the cold',
    also: ['frozen brakes', 'no air when cold'],
    said: [
      [/iced/, 0.7],
      [/^desiccant|^water: /, 0.35],
    ],
  },
];

const key = (words: string) => words.trim().toLowerCase();

/** Complaints that some words may mean, by title or synonym; all of them for no words. */
export const complaintsLike = (words: string): readonly Complaint[] =>
  complaints.filter(({ title, also }) =>
    [title, ...also].some((each) => key(each).includes(key(words))),
  );

/**
 * How often a driver says it of a rig with a fault, 0 to 1.
 *
 * @param fault null for a sound rig
 * @param severity how bad the fault is: of a slight one fewer drivers speak
 */
export function saysOf(complaint: Complaint, fault: Fault | null, severity = 1): number {
  const row = fault && complaint.said.find(([of]) => of.test(fault.id));
  return fault && row ? Math.max(SAID_ANYHOW, row[1] * noticedShare(fault, severity)) : SAID_ANYHOW;
}
