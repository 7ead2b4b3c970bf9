import type { FigureId, Verdict } from '@keen-bleed/contract';
import { figureTitles } from '../reading/figureWords';
import { verdictWords } from '../reading/verdictWords';

/** A term as it is used throughout, and what it means here. */
export interface Term {
  term: string;
  means: string;
}

/** A group of terms that belong together. */
export interface TermGroup {
  title: string;
  terms: readonly Term[];
}

const verdicts: Readonly<Record<Verdict, string>> = {
  pass: 'Within its limit.',
  fail: 'Outside its limit, or found not right. It stays an open failure until the same thing passes.',
  'cant-tell':
    'The reading’s own doubt reaches across the limit. What would settle it stands beside it.',
  incomplete: 'Something the rule set asks for was not done. The vehicle counts as not tested.',
};

const figures: Readonly<Record<FigureId, string>> = {
  'build-up-time':
    'Seconds from the lower mark to the upper at the engine speed the rule set names.',
  'build-up-rate': 'How fast the pressure climbs between these marks.',
  'free-air-delivery': 'Air the compressor puts into the tanks, as air at atmospheric pressure.',
  'cut-out': 'Pressure at which the governor stops the compressor.',
  'cut-in': 'Pressure at which the governor lets the compressor pump again.',
  'governor-differential': 'Cut-out less cut-in.',
  'build-up-part': 'Time from empty to 65 % of the rated pressure.',
  'build-up-full': 'Time from empty to the rated pressure.',
  'governor-cycle': 'Time from one cut-in to the next with the brakes untouched.',
  'coupling-supply': 'Pressure at the supply coupling with the brakes released.',
  'trailer-supply': 'Pressure that reaches the trailer’s supply line.',
  'static-leak': 'Fall in a minute with all brakes released and the engine off.',
  'static-loss': 'The same leak as free air: the fall times the volume it comes from.',
  'static-leak-other': 'The static leak as the other gauge shows it.',
  'applied-leak': 'Fall in a minute with the pedal held down, after the first drop.',
  'applied-loss': 'The applied leak as free air.',
  'applied-leak-other': 'The applied leak as the other gauge shows it.',
  warning: 'Pressure at which the low-air light or buzzer comes on while the pressure falls.',
  'pop-out-park': 'Pressure at which the park knob pops out by itself.',
  'pop-out-trailer': 'Pressure at which the trailer supply knob pops out by itself.',
  'warning-reset': 'Pressure at which the low-air warning goes off while the pressure climbs.',
  'stop-lamp': 'Application pressure at which the stop lamps light.',
  'reserve-left': 'Pressure left after eight full applications with no air made.',
  'purge-time': 'How long the dryer blows after cut-out.',
  'stop-braking': 'Braking of a service stop, measured, as a share of the weight.',
  'stop-distance': 'From the pedal to standstill, from walking pace.',
  'stop-speed': 'What the speedometer shows as the brakes go on.',
  'gauge-error': 'What a dash gauge shows too much or too little, as comparisons found it.',
};

const term = (name: string, means: string): Term => ({ term: name, means });

/** Every term the product uses in a sense of its own, once each. Screens, reports and docs say it in these words. */
export const glossary: readonly TermGroup[] = [
  {
    title: 'Tests',
    terms: [
      term('Run', 'One test of a unit or rig by a rule set, from making it safe to its closing.'),
      term(
        'Rule set',
        'Steps, limits with their sources, and the choices practitioners differ on.',
      ),
      term('Mark', 'A reading or a moment, kept with its time and how finely it was read.'),
      term('Hold', 'A timed stretch in which nothing is touched and the needle is watched.'),
      term('Look', 'Something seen, heard or felt, with one answer of its own.'),
      term('Finding', 'The answer to a look, as the record keeps it.'),
      term('Figure', 'A number worked out from marks, with its doubt and its limit.'),
      term('As read', 'The number alone against the limit, as an examiner writes it down.'),
      term('How sure', 'The chance that the true figure lies within the limit.'),
      term(
        'Suggested',
        'A proposed value that nobody set. It is kept as that and counts for nothing.',
      ),
      term(
        'Open failure',
        'What failed and was not proven right since, whatever was run in between.',
      ),
      term(
        'Retest owed',
        'A unit with an open failure: the same test, in the same state, comes first.',
      ),
      term('Practice', 'A run on the Bay or a simulated source. It is kept nowhere.'),
    ],
  },
  {
    title: 'Verdicts',
    terms: (Object.keys(verdicts) as Verdict[]).map((verdict) =>
      term(verdictWords[verdict], verdicts[verdict]),
    ),
  },
  {
    title: 'Figures',
    terms: (Object.keys(figures) as FigureId[]).map((id) => term(figureTitles[id], figures[id])),
  },
  {
    title: 'Vehicle and air',
    terms: [
      term('Unit', 'One vehicle: truck, tractor, bus, trailer, dolly.'),
      term('Rig', 'Units coupled together, front to rear.'),
      term('Twin', 'A rig’s air worked out in physics, to predict what its gauges would show.'),
      term('Supply tank', 'The first tank after the dryer; numbered port 1.'),
      term(
        'Primary',
        'The circuit of the rear service brakes on most trucks; numbered circuit 21.',
      ),
      term(
        'Secondary',
        'The circuit of the front service brakes on most trucks; numbered circuit 22.',
      ),
      term(
        'Master gauge',
        'A gauge good to about 1 %, teed in to compare or replace the dash gauge.',
      ),
      term('Free air', 'Air counted at atmospheric pressure, in litres or standard cubic feet.'),
    ],
  },
];
