/* The closed lists of the records. They stand apart from the schemas so that the browser need not carry those. */

export const unitKinds = ['truck', 'tractor', 'bus', 'trailer', 'dolly'] as const;
export const tankRoles = ['supply', 'primary', 'secondary', 'trailer', 'accessory'] as const;
export const chamberTypes = ['6', '9', '12', '14', '16', '18', '20', '24', '30', '36'] as const;
export const chamberStrokes = ['standard', 'long', 'long-3'] as const;
/** How a chamber is marked: its rated stroke as usual, long, or long with 3 in of rated stroke. */
export type ChamberStroke = (typeof chamberStrokes)[number];

export const adjusterKinds = ['automatic', 'manual'] as const;
/** What takes up the wear of a wheel’s brake. */
export type AdjusterKind = (typeof adjusterKinds)[number];

export const pressureUnits = ['psi', 'kPa', 'bar'] as const;

export type UnitKind = (typeof unitKinds)[number];
export type TankRole = (typeof tankRoles)[number];
export type ChamberType = (typeof chamberTypes)[number];
export type PressureUnit = (typeof pressureUnits)[number];

export const gaugeRoles = ['primary', 'secondary', 'supply', 'master', 'simulated'] as const;
/** Which dial a reading was taken from. */
export type GaugeRole = (typeof gaugeRoles)[number];

export const roles = ['technician', 'lead', 'viewer'] as const;
/** A technician records; a lead also looks after units' limits, people and releases; a viewer reads. */
export type Role = (typeof roles)[number];

export const verdicts = ['pass', 'fail', 'cant-tell', 'incomplete'] as const;
/** What a run or a figure comes to. `incomplete` is only said of runs. */
export type Verdict = (typeof verdicts)[number];

export const figureIds = [
  'build-up-time',
  'build-up-rate',
  'free-air-delivery',
  'build-up-part',
  'build-up-full',
  'cut-out',
  'cut-in',
  'governor-differential',
  'governor-cycle',
  'coupling-supply',
  'trailer-supply',
  'static-leak',
  'static-loss',
  'static-leak-other',
  'applied-leak',
  'applied-loss',
  'applied-leak-other',
  'warning',
  'pop-out-park',
  'pop-out-trailer',
  'warning-reset',
  'stop-lamp',
  'reserve-left',
  'gauge-error',
  'purge-time',
  'stop-braking',
  'stop-distance',
  'stop-speed',
] as const;
export type FigureId = (typeof figureIds)[number];

export const figureUnits = ['s', 'psi', 'psi/s', 'psi/min', 'scfm', '%', 'ft', 'mph'] as const;
export type FigureUnit = (typeof figureUnits)[number];

export const limitTags = ['std', 'trade', 'calc', 'memory', 'house', 'maker'] as const;
/** What kind of source stands behind a limit. */
export type LimitTag = (typeof limitTags)[number];

export const schools = ['words', 'numbers'] as const;
/** How ports and circuits are called: by what they do, or by the numbers of the UN ECE practice. */
export type School = (typeof schools)[number];

export const couplings = ['alone', 'one-trailer', 'two-trailers'] as const;
/** What is coupled behind the unit in front; dollies go with their trailer. */
export type Coupling = (typeof couplings)[number];

export const needs = ['must', 'may', 'off'] as const;
/** Whether a rule set asks for a step, allows it, or leaves it out. */
export type Need = (typeof needs)[number];

export const seenStandings = ['good', 'bad', 'noted'] as const;
/** What a part that was looked at comes to. */
export type SeenStanding = (typeof seenStandings)[number];

export const findingStandings = ['good', 'bad', 'noted', 'open'] as const;
/** What an observation comes to; `open` leaves the question undecided, so that the run can't tell. */
export type FindingStanding = (typeof findingStandings)[number];

export const jointMends = [
  'retightened',
  'sealed',
  'reseated',
  'remade',
  'replaced',
  'capped',
  'removed',
] as const;
/** What was done to a joint that leaked. */
export type JointMend = (typeof jointMends)[number];

export const leakGrades = ['film', 'froth', 'stream', 'blown-off'] as const;
/** What soap shows where something leaks, from a film up. */
export type LeakGrade = (typeof leakGrades)[number];

export const jointSides = ['hose', 'body'] as const;
/** Which half of a joint bubbles: the hose or line, or the thing it screws into. */
export type JointSide = (typeof jointSides)[number];

export const heldStates = [
  'parked',
  'released',
  'red out',
  'applied',
  'supply drained',
  'cocks shut',
] as const;
/** What a rig stands in while its needles are watched, engine off. */
export type HeldState = (typeof heldStates)[number];

export const heldNeedles = ['primary', 'secondary', 'supply', 'trailer'] as const;
/** The tank whose gauge is read; one on the supply tank is teed in. */
export type HeldNeedle = (typeof heldNeedles)[number];

export const sideFindings = [
  'steering',
  'corrosion',
  'linings',
  'wiring',
  'tyres',
  'look-up',
  'other',
] as const;
/** What a thing seen on the way is about; `look-up` is what nobody understood yet. */
export type SideFinding = (typeof sideFindings)[number];

export const drainedThings = ['clear', 'milky', 'oil', 'rust', 'sludge', 'ice'] as const;
/** What came out of a drain. */
export type DrainedThing = (typeof drainedThings)[number];

export const stopMeasures = ['roller', 'phone'] as const;
/** How a service stop is measured, where it is not only watched. */
export type StopMeasure = (typeof stopMeasures)[number];

/** Litres that no brake tank holds as water; more is a slip of the keys, ml. */
export const MOST_DRAINED_ML = 5_000;

/** So many entries of a log go to the server at once, and no more. */
export const MOST_FACTS_AT_ONCE = 200;
