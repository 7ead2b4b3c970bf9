import type { PartRole } from '@keen-bleed/core';

/** What each kind of part is for. */
export const partNotes: Readonly<Record<PartRole, string>> = {
  compressor:
    'Pumps air while it is loaded. Its unloader lets it run empty once the governor says so.',
  governor:
    'Watches the supply tank: at cut-out it unloads the compressor and lets the dryer blow, at cut-in it loads again.',
  'pre-cleaner': 'Takes oil and the worst of the water out before the dryer.',
  dryer: 'Takes water out, and blows it off when the governor cuts out.',
  'safety-valve': 'Blows off at about 150 psi, where the governor or the unloader has failed.',
  tank: 'Keeps air for its circuit, and cools it: water that got past the dryer settles here.',
  drain: 'Lets water out of its tank.',
  'check-valve': 'Lets air into its tank and not back: a lost supply tank does not take it along.',
  'double-check':
    'Feeds its outlet from whichever inlet is higher, and keeps one from filling the other.',
  'foot-valve': 'Meters air from two tanks to two circuits, as far as the pedal is pressed.',
  'quick-release': 'Passes air on, and lets it off close to the chambers when the pedal comes up.',
  relay:
    'Fills chambers from a tank close by, to the pressure its control asks for: the axle is not late.',
  'relay-emergency': 'A relay that also brakes from its own tank once the supply line is lost.',
  'park-relay': 'Fills and empties the spring sides as its control line asks.',
  'load-sensing': 'Gives so much of the pedal’s pressure as the axle carries.',
  'modulating-valve':
    'Holds spring pressure to 95 psi, and with primary lost lets the springs on as far as the pedal asks.',
  'antilock-modulator': 'Lets air off a wheel that is about to lock, and holds it.',
  accessory: 'Feeds suspension, horn and the like, and keeps the brakes their air.',
  consumer: 'Worked by air behind the accessory take-off.',
  chambers: 'Turn air into force at the wheels of an axle.',
  chamber:
    'Pushes the rod to the brake. Behind the seal the spring holds the wheel when its air is gone.',
  'park-control': 'Pushed in it holds the springs off; pulled, or out of air, it lets them on.',
  'hand-brake-valve':
    'Released it holds the springs off; drawn it lets them on, as far as it is drawn.',
  'trailer-supply-control':
    'Pushed in it supplies the trailer; it pops out by itself when the truck’s air is low.',
  'trailer-control-valve': 'Gives the trailer what pedal or hand brake ask for, and its supply.',
  'tractor-protection':
    'Shuts the service line once the trailer’s supply is gone, so that the tractor keeps its air.',
  'hand-valve': 'Brakes the trailer alone.',
  'stop-lamp-switch': 'Lights the stop lamps from about 5 psi of brake.',
  'low-air-switch': 'Warns before there is too little air to stop with.',
  gauge: 'Shows primary and secondary.',
  line: 'Carries air from port to port.',
  coupler: 'Joins the lines of two units.',
  cock: 'Open between units, shut behind the last one.',
};
