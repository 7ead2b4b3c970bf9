interface PartNote {
  does: string;
  tests: string;
}

/** By what a place is, the first that fits. */
const notes: readonly (readonly [RegExp, PartNote])[] = [
  [
    /^shop (air|hose)/,
    {
      does: 'The shop’s air, regulated, in place of a truck’s.',
      tests: 'static hold of a trailer alone',
    },
  ],
  [
    /^shop service/,
    {
      does: 'What the shop’s hand valve asks of the trailer’s brakes.',
      tests: 'applied hold of a trailer alone',
    },
  ],
  [
    /discharge/,
    { does: 'Hot air from the compressor on its way to the dryer.', tests: 'build-up' },
  ],
  [
    /dryer|purge/,
    {
      does: 'Takes water out, and blows it off when the governor cuts out.',
      tests: 'cut-out, governor cycle',
    },
  ],
  [
    /governor/,
    {
      does: 'Carries the governor’s signal to the unloader and the purge valve.',
      tests: 'cut-out, cut-in',
    },
  ],
  [
    /supply tank/,
    {
      does: 'First tank after the dryer; the governor watches it. The checks hide its leaks from the dash.',
      tests: 'governor cycle, circuit failure',
    },
  ],
  [
    /primary tank/,
    { does: 'Air for the rear axles.', tests: 'static and applied hold, circuit failure' },
  ],
  [
    /secondary tank/,
    { does: 'Air for the front axle.', tests: 'static and applied hold, circuit failure' },
  ],
  [/dash/, { does: 'The higher of both circuits, for the dash controls.', tests: 'pop-out' }],
  [
    /park|spring/,
    {
      does: 'Air here holds the parking springs off.',
      tests: 'static hold with the park brake released, pop-out, parking hold',
    },
  ],
  [
    /trailer supply|supply line|rear supply/,
    {
      does: 'Supply to what is towed: it releases its springs and fills its tanks.',
      tests: 'trailer supply, breakaway, pop-out',
    },
  ],
  [/^tank$/, { does: 'The towed unit’s own air.', tests: 'static hold, breakaway' }],
  [/hand/, { does: 'What the hand valve asks of the trailer’s brakes.', tests: 'hand valve' }],
  [
    /service|trailer signal|foot signal/,
    {
      does: 'Tells the towed units how hard to brake.',
      tests: 'couplers, air at the last couplers',
    },
  ],
  [
    /signal|control/,
    { does: 'What the pedal asks of a relay or quick-release.', tests: 'applied hold' },
  ],
  [
    /delivery/,
    { does: 'Between a relay or quick-release and its chambers.', tests: 'applied hold' },
  ],
];
const CHAMBER: PartNote = {
  does: 'Service side of brake chambers: its pressure pushes the rods.',
  tests: 'applied hold, service stop, stroke',
};

/** What a place of the air system is for, and which steps of a run test it; by its role. */
export function partNote(role: string): PartNote {
  return notes.find(([fits]) => fits.test(role))?.[1] ?? CHAMBER;
}
