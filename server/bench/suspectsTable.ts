/** One made-up rig that was weighed. */
export interface Case {
  rig: string;
  wrong: readonly {
    id: string;
    severity: number;
    /** Some reading of a run leaves the band of sound rigs. */
    onDash: boolean;
    /** A complaint or a look is three times likelier than on a sound rig. */
    byWords: boolean;
    /** How bad it was taken to be after the checks. */
    after: number | null;
  }[];
  first: Ranked;
  last: Ranked;
  checks: number;
  minutes: number;
  ending: string;
  done: readonly string[];
  said: string | null;
  /** Small leaks beside: naming one is no mistake. */
  also: readonly string[];
  /** Of two faults, how many were mended by mending the first suspect, running again and going on; null where it is not two. */
  both: { mended: number; checks: number; parts: number } | null;
  /** With its fault taken out of the list; null where another gives the same readings. */
  without: { unlisted: number; isFirst: boolean } | null;
  /** The trade's table by itself on the same run; null where there is no run. */
  table: { needless: number; named: boolean; minutes: number } | null;
}

interface Ranked {
  suspects: readonly { ids: readonly string[]; chance: number }[];
  sound: number;
  reader: number;
  unlisted: number;
  two: readonly string[];
  twoChance: number;
}

const share = (some: readonly unknown[], of: readonly unknown[]) =>
  of.length === 0 ? '–' : `${((100 * some.length) / of.length).toFixed(1)} % of ${of.length}`;

/** An inseparable group counts where it holds the truth and has at most three members. */
const placeOf = ({ suspects }: Ranked, id: string): number => {
  const at = suspects.findIndex(({ ids }) => ids.includes(id) && ids.length <= 3);
  return at < 0 ? Infinity : at + 1;
};

const LEAK = /^(leak|seat|pierced|centre)/;
/** A factor of two of a leak, in severity: its range is 0.02 to 4 scfm by its logarithm. */
const TWICE = Math.log(2) / Math.log(4 / 0.02);

/** The table of a bench. */
export function printed(cases: readonly Case[]): string {
  const sound = cases.filter(({ wrong }) => wrong.length === 0);
  const single = cases.filter(({ wrong }) => wrong.length === 1);
  const pairs = cases.filter(({ wrong }) => wrong.length === 2);
  const counted = single.filter(({ wrong }) => wrong[0]!.onDash || wrong[0]!.byWords);
  const dash = single.filter(({ wrong }) => wrong[0]!.onDash);
  const within = (of: readonly Case[], when: 'first' | 'last', place: number) =>
    of.filter((each) => placeOf(each[when], each.wrong[0]!.id) <= place);
  const mean = (values: readonly number[]) =>
    values.reduce((sum, each) => sum + each, 0) / Math.max(1, values.length);
  const sized = within(counted, 'last', 1).filter(
    ({ wrong }) => wrong[0]!.after !== null && LEAK.test(wrong[0]!.id),
  );
  const lines = [
    `cases ${cases.length}: sound ${sound.length}, one fault ${single.length}, two ${pairs.length}`,
    `left out (neither reading nor words show it) ${share(
      single.filter((each) => !counted.includes(each)),
      single,
    )}; on the dash ${share(dash, single)}`,
    `run and complaint: on the dash first ${share(within(dash, 'first', 1), dash)}, in three ${share(within(dash, 'first', 3), dash)}; of all in three ${share(within(counted, 'first', 3), counted)}, first ${share(within(counted, 'first', 1), counted)}`,
    `after checks: first ${share(within(counted, 'last', 1), counted)}, in three ${share(within(counted, 'last', 3), counted)}; checks ${mean(counted.map(({ checks }) => checks)).toFixed(2)}, minutes ${mean(counted.map(({ minutes }) => minutes)).toFixed(1)}`,
    `  on the dash: first ${share(within(dash, 'last', 1), dash)}, checks ${mean(dash.map(({ checks }) => checks)).toFixed(2)}`,
    `leaks within twice ${share(
      sized.filter(({ wrong: [w] }) => Math.abs(w!.after! - w!.severity) <= TWICE),
      sized,
    )}`,
    `sound accused, run alone ${share(
      sound.filter(({ first }) => (first.suspects[0]?.chance ?? 0) > 0.5),
      sound,
    )}, after checks ${share(
      sound.filter(({ last }) => (last.suspects[0]?.chance ?? 0) > 0.5),
      sound,
    )}`,
    `not in the list: first, or over 30 %, where its fault is taken out and no other gives the same readings ${share(
      single.filter(({ without }) => without && (without.isFirst || without.unlisted > 0.3)),
      single.filter(({ without }) => without),
    )}`,
    `two at once: both in the first two, or named as two ${share(
      pairs.filter(({ wrong, last }) =>
        wrong.every(({ id }) => placeOf(last, id) <= 2 || last.two.includes(id)),
      ),
      pairs,
    )}`,
    `two at once, mending the first suspect, running again and going on, three parts at most: both ${share(
      pairs.filter(({ both }) => both?.mended === 2),
      pairs,
    )}, one at least ${share(
      pairs.filter(({ both }) => (both?.mended ?? 0) > 0),
      pairs,
    )}; parts ${mean(pairs.map(({ both }) => both?.parts ?? 0)).toFixed(1)}`,
    besideTable(counted),
    `group size of the first ${mean(counted.map(({ last }) => last.suspects[0]?.ids.length ?? 0)).toFixed(2)}`,
    `endings ${JSON.stringify(Object.fromEntries(['found', 'sound', 'open', 'most'].map((end) => [end, cases.filter(({ ending }) => ending === end).length])))}`,
    'calibration, run and complaint:',
    ...calibration(cases, 'first'),
    'calibration, after checks:',
    ...calibration(cases, 'last'),
  ];
  return lines.join('\n');
}

/** Chances as told against what was so, by tenths; tenths under 100 go with a neighbour. */
function calibration(cases: readonly Case[], when: 'first' | 'last'): string[] {
  const told = cases.flatMap((each) => [
    ...each[when].suspects.map(({ ids, chance }) => ({
      chance,
      right:
        each.wrong.some(({ id }) => ids.includes(id)) || each.also.some((id) => ids.includes(id)),
    })),
    { chance: each[when].sound + each[when].reader, right: each.wrong.length === 0 },
  ]);
  const bins: { from: number; told: typeof told }[] = [];
  for (let tenth = 0; tenth < 10; tenth += 1) {
    const some = told.filter(({ chance }) => Math.min(9, Math.floor(chance * 10)) === tenth);
    const last = bins.at(-1);
    if (last && last.told.length < 100) last.told.push(...some);
    else bins.push({ from: tenth / 10, told: some });
  }
  return bins.map(({ from, told: some }) => {
    const said = some.reduce((sum, { chance }) => sum + chance, 0) / Math.max(1, some.length);
    const was = some.filter(({ right }) => right).length / Math.max(1, some.length);
    const wide = 1.96 * Math.sqrt((was * (1 - was)) / Math.max(1, some.length));
    return `  from ${from.toFixed(1)}: said ${(100 * said).toFixed(0)}, was ${(100 * was).toFixed(0)} ± ${(100 * wide).toFixed(0)} of ${some.length}`;
  });
}

/** Parts changed for nothing before the right one, by the ranking after its checks and by the table alone. */
function besideTable(cases: readonly Case[]): string {
  const both = cases.filter(({ table }) => table !== null);
  const mean = (values: readonly number[]) =>
    (values.reduce((sum, each) => sum + each, 0) / Math.max(1, values.length)).toFixed(1);
  const ours = both.map(({ last, wrong }) => {
    const named = last.suspects.flatMap(({ ids }) => ids);
    const at = named.indexOf(wrong[0]!.id);
    return at < 0 ? named.length : at;
  });
  return `beside the trade's table alone: changed for nothing ${mean(ours)} against ${mean(both.map(({ table }) => table!.needless))}; minutes of checks ${mean(both.map(({ minutes }) => minutes))} against ${mean(both.map(({ table }) => table!.minutes))}; the table names the right one in ${share(
    both.filter(({ table }) => table!.named),
    both,
  )}`;
}
