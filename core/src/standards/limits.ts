import type { Coupling, Limit, UnitKind } from '@keen-bleed/contract';

/** Kinds that make their own air. */
export const powered: UnitKind[] = ['truck', 'tractor', 'bus'];
/** Kinds that are charged from outside. */
export const towedKinds: UnitKind[] = ['trailer', 'dolly'];
const anyCircuits: ('dual' | 'single')[] = ['dual', 'single'];
const anyCoupling: Coupling[] = ['alone', 'one-trailer', 'two-trailers'];

type Where = Partial<Pick<Limit, 'kinds' | 'circuits' | 'coupled'>>;

/** A limit that applies to every unit with an engine, whatever is coupled, unless it says otherwise. */
export function limit(
  given: Omit<Limit, 'kinds' | 'circuits' | 'coupled' | 'min' | 'max'> &
    Where &
    Partial<Pick<Limit, 'min' | 'max'>>,
): Limit {
  return {
    min: null,
    max: null,
    kinds: powered,
    circuits: anyCircuits,
    coupled: anyCoupling,
    ...given,
  };
}

const CDL = 'model CDL manual 5.3';
const PROVINCIAL = 'a provincial air brake handbook';

/** What a leak test allows, by what is coupled [std: model CDL manual 5.3; two trailers from memory]. */
export const leakLimits: readonly Limit[] = [
  limit({
    id: 'static-leak-alone',
    figure: 'static-leak',
    unit: 'psi/min',
    max: 2,
    coupled: ['alone'],
    source: `${CDL}, single vehicle`,
    tag: 'std',
  }),
  limit({
    id: 'static-leak-one-trailer',
    figure: 'static-leak',
    unit: 'psi/min',
    max: 3,
    coupled: ['one-trailer'],
    source: `${CDL}, combination`,
    tag: 'std',
  }),
  limit({
    id: 'static-leak-two-trailers',
    figure: 'static-leak',
    unit: 'psi/min',
    max: 5,
    coupled: ['two-trailers'],
    source: `${PROVINCIAL}, two trailers`,
    tag: 'memory',
  }),
  limit({
    id: 'applied-leak-alone',
    figure: 'applied-leak',
    unit: 'psi/min',
    max: 3,
    coupled: ['alone'],
    source: `${CDL}, single vehicle`,
    tag: 'std',
  }),
  limit({
    id: 'applied-leak-one-trailer',
    figure: 'applied-leak',
    unit: 'psi/min',
    max: 4,
    coupled: ['one-trailer'],
    source: `${CDL}, combination`,
    tag: 'std',
  }),
  limit({
    id: 'applied-leak-two-trailers',
    figure: 'applied-leak',
    unit: 'psi/min',
    max: 6,
    coupled: ['two-trailers'],
    source: `${PROVINCIAL}, two trailers`,
    tag: 'memory',
  }),
];

/** What a towed unit may lose alone on shop air. */
export const towedAlone: Limit = limit({
  id: 'static-leak-towed-alone',
  figure: 'static-leak',
  unit: 'psi/min',
  max: 1,
  kinds: towedKinds,
  source: 'house default, not a regulation: a combination may lose 3, a truck 2, so 1 is left',
  tag: 'house',
});

/** Where the parking and trailer supply controls must pop out by themselves. */
export const popOutLimits: readonly Limit[] = [
  limit({
    id: 'pop-out-park',
    figure: 'pop-out-park',
    unit: 'psi',
    min: 20,
    max: 45,
    source: 'trade practice for the test: both controls out between 20 and 45 psi',
    tag: 'trade',
  }),
  limit({
    id: 'pop-out-trailer',
    figure: 'pop-out-trailer',
    unit: 'psi',
    min: 20,
    max: 45,
    source: '49 CFR 393.43(b)',
    tag: 'std',
  }),
];

/** Build-up by the licence examiner's levels. */
export const buildUpLimits: readonly Limit[] = [
  limit({
    id: 'build-up-dual',
    figure: 'build-up-time',
    unit: 's',
    max: 45,
    circuits: ['dual'],
    follows: 'reservoirs',
    source: `${CDL}: 85 to 100 psi within 45 s, longer by what the tanks hold over the required volume`,
    tag: 'std',
  }),
  limit({
    id: 'build-up-single',
    figure: 'build-up-time',
    unit: 's',
    max: 180,
    circuits: ['single'],
    source: `${CDL}: 50 to 90 psi within 3 min (before 1975)`,
    tag: 'std',
  }),
];

/** A cut-in may be so low on every bus, and on a truck from before the floor of 100 psi, psi. */
export const CUT_IN_BEFORE_PSI = 85;

/** Cut-in as the building standard has it; the floor of 100 psi is of trucks whose governor is plated so. */
export const cutInAsBuilt: readonly Limit[] = [
  limit({
    id: 'cut-in-floor',
    figure: 'cut-in',
    unit: 'psi',
    min: 100,
    kinds: ['truck', 'tractor'],
    follows: 'plate',
    source: '49 CFR 571.121 S5.1.1.1',
    tag: 'std',
  }),
  limit({
    id: 'cut-in-floor-bus',
    figure: 'cut-in',
    unit: 'psi',
    min: CUT_IN_BEFORE_PSI,
    kinds: ['bus'],
    source: '49 CFR 571.121 S5.1.1.1',
    tag: 'std',
  }),
];

/** From here on the warning is set at 60 psi or more by its maker, and before at 55 or half of cut-out. */
const WARNING_FROM = '1975-01';

/**
 * The warning of vehicles in use [std: 49 CFR 393.51, values and date from memory]; trade practice lets no warning come
 * over 75 psi.
 */
export const warningInUse: readonly Limit[] = [
  limit({
    id: 'warning-in-use',
    figure: 'warning',
    unit: 'psi',
    min: 55,
    max: 75,
    builtFrom: WARNING_FROM,
    source: '49 CFR 393.51: not under 55 psi in use; not above 75 by trade practice',
    tag: 'std',
  }),
  limit({
    id: 'warning-in-use-before-1975',
    figure: 'warning',
    unit: 'psi',
    min: 55,
    max: 75,
    builtBefore: WARNING_FROM,
    follows: 'half-cut-out',
    source:
      '49 CFR 393.51: 55 psi or half of cut-out, whichever is less; not above 75 by trade practice',
    tag: 'std',
  }),
];

/** The warning as the building standard has it. */
export const warningAsBuilt: readonly Limit[] = [
  limit({
    id: 'warning-as-built',
    figure: 'warning',
    unit: 'psi',
    min: 60,
    builtFrom: WARNING_FROM,
    source: '49 CFR 571.121 S5.1.5: set at 60 psi or more by its maker',
    tag: 'std',
  }),
  limit({
    id: 'warning-as-built-before-1975',
    figure: 'warning',
    unit: 'psi',
    min: 55,
    builtBefore: WARNING_FROM,
    follows: 'half-cut-out',
    source: '49 CFR 393.51: 55 psi or half of cut-out, whichever is less',
    tag: 'std',
  }),
];

const STOPS = '49 CFR 393.52(d)';
/** Where weight does not decide: buses, and whatever tows. */
const PCT_14 = 43.5;
const PCT_17 = 52.8;

/**
 * The service stop [std: 49 CFR 393.52(d), values from memory]: 14 ft/s², 43.5 % of the weight, for goods vehicles over
 * 10,000 lb, combinations and buses; 17 ft/s² up to 10,000 lb, which is 52.8 % by 32.174 ft/s² of gravity [calc].
 */
export const stopLimits: readonly Limit[] = [
  limit({
    id: 'stop-braking',
    figure: 'stop-braking',
    unit: '%',
    min: PCT_14,
    weight: 'over-10000-lb',
    source: `${STOPS}: 14 ft/s², 43.5 % of the weight`,
    tag: 'std',
  }),
  limit({
    id: 'stop-braking-light',
    figure: 'stop-braking',
    unit: '%',
    min: PCT_17,
    kinds: ['truck', 'tractor'],
    coupled: ['alone'],
    weight: 'to-10000-lb',
    source: `${STOPS}: 17 ft/s² up to 10,000 lb`,
    tag: 'std',
  }),
  limit({
    id: 'stop-speed',
    figure: 'stop-speed',
    unit: 'mph',
    min: 5,
    max: 6,
    source: 'trade practice: from walking pace, about 5 mph',
    tag: 'trade',
  }),
  limit({
    id: 'stop-distance',
    figure: 'stop-distance',
    unit: 'ft',
    max: 4,
    source:
      'trade practice: at once, within about 4 ft; 3.6 ft is 14 ft/s² with half a second’s ramp',
    tag: 'trade',
  }),
];

/** Build-up at the governed speed, as the building standard has it. */
export const buildUpAsBuilt: readonly Limit[] = [
  limit({
    id: 'build-up-governed',
    figure: 'build-up-time',
    unit: 's',
    max: 25,
    circuits: ['dual'],
    follows: 'reservoirs',
    source:
      '49 CFR 571.121 S5.1.1: 85 to 100 psi within 25 s at governed speed, times actual over required reservoir volume',
    tag: 'std',
  }),
];

/** Limits that stand in every psi rule set. */
export const sharedLimits: readonly Limit[] = [
  ...stopLimits,
  limit({
    id: 'purge-time',
    figure: 'purge-time',
    unit: 's',
    max: 30,
    source: 'trade practice: a whole purge takes about 25 s, and not past 30',
    tag: 'trade',
  }),
  limit({
    id: 'differential-floor',
    figure: 'governor-differential',
    unit: 'psi',
    min: 16,
    max: 30,
    source:
      'trade practice: under about 16 psi the governor short-cycles, over about 30 suspect governor or unloader',
    tag: 'memory',
  }),
  limit({
    id: 'governor-cycle-floor',
    figure: 'governor-cycle',
    unit: 's',
    min: 120,
    source: 'house default, not a regulation: untouched, a sound rig holds for minutes',
    tag: 'house',
  }),
  limit({
    id: 'warning-reset',
    figure: 'warning-reset',
    unit: 'psi',
    max: 90,
    source: 'trade practice: off about 15 psi above its set point, which may be 75',
    tag: 'trade',
  }),
  limit({
    id: 'trailer-supply',
    figure: 'trailer-supply',
    unit: 'psi',
    min: 80,
    source: 'trade practice: 80 psi before a trailer counts as charged',
    tag: 'trade',
  }),
  limit({
    id: 'stop-lamp',
    figure: 'stop-lamp',
    unit: 'psi',
    max: 6,
    source: '49 CFR 571.121 S5.1.7',
    tag: 'std',
  }),
];
