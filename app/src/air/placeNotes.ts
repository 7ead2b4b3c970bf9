import type { PlaceKind } from '@keen-bleed/core/twin';

interface PlaceNote {
  does: string;
  tests: string;
}

const shop: PlaceNote = {
  does: 'The shop’s air, regulated, in place of a truck’s.',
  tests: 'static hold of a trailer alone',
};
const springs: PlaceNote = {
  does: 'Air here holds the parking springs off.',
  tests: 'static hold with the park brake released, pop-out, parking hold',
};
const supplyToTowed: PlaceNote = {
  does: 'Supply to what is towed: it releases its springs and fills its tanks.',
  tests: 'trailer supply, breakaway, pop-out',
};
const serviceToTowed: PlaceNote = {
  does: 'Tells the towed units how hard to brake.',
  tests: 'couplers, air at the last couplers',
};
const asked: PlaceNote = {
  does: 'What the pedal asks of a relay or quick-release.',
  tests: 'applied hold',
};
const delivery: PlaceNote = {
  does: 'Between a relay or quick-release and its chambers.',
  tests: 'applied hold',
};
const dryer: PlaceNote = {
  does: 'Takes water out, and blows it off when the governor cuts out.',
  tests: 'cut-out, governor cycle',
};
const hand: PlaceNote = {
  does: 'What the hand valve asks of the trailer’s brakes.',
  tests: 'hand valve',
};

/** What each kind of place is for, and which steps of a run test it. */
export const placeNotes: Readonly<Record<PlaceKind, PlaceNote>> = {
  'shop air': shop,
  'shop hose': shop,
  'shop service hose': {
    does: 'What the shop’s hand valve asks of the trailer’s brakes.',
    tests: 'applied hold of a trailer alone',
  },
  'discharge line': {
    does: 'Hot air from the compressor on its way to the dryer.',
    tests: 'build-up',
  },
  dryer,
  'purge volume': dryer,
  'governor line': {
    does: 'Carries the governor’s signal to the unloader and the purge valve.',
    tests: 'cut-out, cut-in',
  },
  'supply tank': {
    does: 'First tank after the dryer; the governor watches it. The checks hide its leaks from the dash.',
    tests: 'governor cycle, circuit failure',
  },
  'primary tank': {
    does: 'Air for the rear axles.',
    tests: 'static and applied hold, circuit failure',
  },
  'secondary tank': {
    does: 'Air for the front axle.',
    tests: 'static and applied hold, circuit failure',
  },
  'dash feed': { does: 'The higher of both circuits, for the dash controls.', tests: 'pop-out' },
  'rear signal': asked,
  'front signal': asked,
  'front load control': asked,
  'front delivery': delivery,
  'rear relay control': asked,
  'rear delivery': delivery,
  'park line': springs,
  'park relay control': springs,
  'modulating signal': {
    does: 'Carries the front brakes’ pressure to the spring brake modulating valve once the primary tank is lost: the pedal then lets the rear springs on in proportion.',
    tests: 'Circuit failure: primary drained, the pedal still brakes the rear.',
  },
  'spring line': springs,
  'hand brake line': springs,
  'trailer foot signal': serviceToTowed,
  'hand signal': hand,
  'trailer signal': serviceToTowed,
  'trailer service line': serviceToTowed,
  'trailer supply line': supplyToTowed,
  'service chamber': {
    does: 'Service side of brake chambers: its pressure pushes the rods.',
    tests: 'applied hold, service stop, stroke',
  },
  'spring chamber': springs,
  'towed supply line': supplyToTowed,
  'towed service line': serviceToTowed,
  'towed tank': { does: 'The towed unit’s own air.', tests: 'static hold, breakaway' },
  'towed relay control': asked,
  'towed load control': asked,
  'towed delivery': delivery,
  'towed spring line': springs,
  'accessory line': {
    does: 'Feeds suspension, horn and the like, behind a valve that keeps the brakes their air.',
    tests: 'static hold',
  },
  accessory: { does: 'Worked by air behind the accessory take-off.', tests: 'static hold' },
  'loose end': { does: 'A port that no line reaches.', tests: 'nothing: look where its line is' },
  'rear supply': supplyToTowed,
  'rear service': serviceToTowed,
};
