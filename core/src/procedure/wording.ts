import type { GaugeRole, School } from '@keen-bleed/contract';

/** Parts and circuits as each school calls them. */
const words: Readonly<Record<School, Readonly<Record<string, string>>>> = {
  words: {
    primary: 'primary',
    secondary: 'secondary',
    'supply tank': 'supply tank',
    'primary tank': 'primary tank',
    'secondary tank': 'secondary tank',
    'supply coupler': 'red supply coupler',
    'service coupler': 'blue service coupler',
    'park knob': 'yellow park knob',
    'trailer knob': 'red trailer knob',
  },
  numbers: {
    primary: 'circuit 21',
    secondary: 'circuit 22',
    'supply tank': 'supply reservoir at port 1',
    'primary tank': 'reservoir of circuit 21',
    'secondary tank': 'reservoir of circuit 22',
    'supply coupler': 'red supply coupling',
    'service coupler': 'yellow control coupling',
    'park knob': 'hand brake valve',
    'trailer knob': 'trailer supply',
  },
};

const gauges: Readonly<Record<School, Readonly<Record<GaugeRole, string>>>> = {
  words: {
    primary: 'Primary',
    secondary: 'Secondary',
    supply: 'Supply',
    master: 'Master gauge',
    simulated: 'Simulated gauge set',
  },
  numbers: {
    primary: 'Circuit 21',
    secondary: 'Circuit 22',
    supply: 'Port 1',
    master: 'Master gauge',
    simulated: 'Simulated gauge set',
  },
};

/** A sentence with its `[parts]` as the school calls them, its first letter a capital. */
export function sayParts(text: string, school: School): string {
  const said = text.replace(
    /\[([a-z ]+)\]/g,
    (whole, part: string) => words[school][part] ?? whole,
  );
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** A gauge as the school calls it. */
export function gaugeWord(role: GaugeRole, school: School): string {
  return gauges[school][role];
}
