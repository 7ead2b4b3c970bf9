import type { PressureUnit } from '@keen-bleed/contract';
import { sayPressure, type HowTo, type WorkDanger } from '@keen-bleed/core';

/** Each danger of a work as its caution. */
export const dangerWords: Readonly<Record<WorkDanger, string>> = {
  chock: 'Chock both ways before anybody goes under.',
  'empty-tanks': 'Empty the tanks that feed it before a joint is opened.',
  cage: 'Cage the springs first: a line or chamber on the spring side is opened.',
  'never-open-spring': 'Never open the spring side of a chamber: the spring can kill.',
  heat: 'Compressor and discharge line stay hot.',
  eyes: 'Eye protection: a joint throws out grit and water.',
  rods: 'Hands off rods and adjusters while air is on.',
};

interface Walk {
  title: string;
  steps: (unit: PressureUnit) => readonly string[];
}

/** Work that is a walk of its own. */
export const howToWords: Readonly<Record<HowTo, Walk>> = {
  cage: {
    title: 'How to cage a spring',
    steps: () => [
      'Chock both ways.',
      'Bent, cracked or rusted at its band: do not cage it. Leave it to those equipped for it.',
      'Air on the spring side first, where there is air.',
      'Release bolt into its seat, quarter turn, nut on.',
      'Turn the nut by hand tool until the spring is drawn. Never an impact tool.',
      'Disc brakes: by the maker’s procedure only.',
      'That wheel has no parking brake until it is uncaged: log it as a temporary measure.',
    ],
  },
  'set-governor': {
    title: 'How to set a governor',
    steps: (unit) => [
      'The maker’s procedure goes first; many governors are not set, but changed.',
      'Read cut-out on a master gauge.',
      'Engine off. Cap off, lock nut loose.',
      `Screw out raises cut-out, in lowers it: a quarter turn is about ${sayPressure(4, unit)}.`,
      'Lock nut tight, cap on. Run to cut-out and read again.',
      'Cut-in goes with it. If the two are too far apart or too close, change the governor.',
    ],
  },
  'adjust-by-hand': {
    title: 'How to adjust a manual adjuster',
    steps: () => [
      'Chock both ways, springs released with full air, nobody at the pedal.',
      'Lock sleeve in. Turn until the lining touches, then back off a quarter to half a turn.',
      'Lock sleeve out again: an adjuster that is not locked backs off.',
      'Measure the stroke at full pedal, left against right.',
    ],
  },
};
