/*
 * Does every check of the catalogue on the twin of every demo rig, sound and with each of its faults, and prints which
 * check tells each fault from a sound rig. Our own twin on both sides: it proves that the catalogue reaches every fault,
 * not that a real one shows so. Arguments: severity, and `--keep` to write docs/CHECKS.md.
 */
import { writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { rigTitle } from '@keen-bleed/core';
import { apart, checksOf, doAll, TELLS, type Check } from '@keen-bleed/core/checks';
import { faultsOf } from '@keen-bleed/core/twin';
import { faultsDocPath } from '../src/docs/faultsDoc';
import { demoRigsUnderTest } from './demoRigsUnderTest';

const severity = Number(process.argv[2] ?? 0.9);
const keep = process.argv.includes('--keep');
const OUTSIDE_C = -10;

const rigs = demoRigsUnderTest();

/** Quickest first, and what is done at the part itself before what is read elsewhere. */
const cost = (check: Check, fault: string) =>
  check.minutes +
  check.state.minutes +
  (check.bearsOn.includes(fault) ? 0 : 20) +
  (check.doing.does === 'look' ? 10 : 0);

const rows = new Map<
  string,
  { fault: string; best: string; rigs: number; told: number; ways: number }
>();
let untold = 0;
for (const rig of rigs) {
  const fromMs = performance.now();
  const faults = faultsOf(rig, OUTSIDE_C);
  const checks = checksOf(rig, faults).filter(({ onBench }) => !onBench);
  const site = { outsideC: OUTSIDE_C };
  const sound = doAll(rig, checks, [], site);
  for (const fault of faults) {
    const answers = doAll(rig, checks, [{ fault, severity }], site);
    const telling = checks
      .filter(
        (check) =>
          apart(check, sound.get(check.id)!, answers.get(check.id)!) >= TELLS ||
          // A look states its chances instead: it tells where a fault shows three times as often as it is imagined.
          (check.doing.does === 'look' && fault.id in check.doing.under),
      )
      .sort((a, b) => cost(a, fault.id) - cost(b, fault.id));
    const title = `${fault.part.replace(/^.*\d+ /, '')}: ${fault.title}`;
    const key = fault.id.replace(/^((?:.*: )?)#\d+ /, '$1');
    const row = rows.get(key) ?? { fault: title, best: '–', rigs: 0, told: 0, ways: 0 };
    const best = telling[0];
    if (best && row.best === '–') row.best = `${best.title} (${best.state.title.toLowerCase()})`;
    rows.set(key, {
      ...row,
      rigs: row.rigs + 1,
      told: row.told + (best ? 1 : 0),
      ways: row.ways + telling.length,
    });
    if (!best) {
      untold += 1;
      console.log(`not told on ${rigTitle(rig)}: ${fault.id}`);
    }
  }
  console.log(
    `${rigTitle(rig)}: ${checks.length} checks, ${faults.length} faults, ${((performance.now() - fromMs) / 1000).toFixed(0)} s`,
  );
}
const table = [
  '| Fault | Rigs that have it | Told on | Checks that tell it, mean | The quickest |',
  '| --- | --- | --- | --- | --- |',
  ...[...rows.values()].map(
    ({ fault, best, rigs: has, told, ways }) =>
      `| ${fault} | ${has} | ${told} | ${(ways / has).toFixed(1)} | ${best} |`,
  ),
].join('\n');
console.log(table);
console.log(`${rows.size} faults on ${rigs.length} rigs; not told: ${untold}`);
if (keep) {
  writeFileSync(
    join(dirname(faultsDocPath), 'CHECKS.md'),
    `# Which check tells which fault

Made by \`npm run bench:checks -- ${severity} --keep\`: every check of the catalogue done on the twin of every demo rig, sound
and with each of its faults at a severity of ${severity}. A check tells a fault where its answer differs from the sound rig's by
three standard deviations of what its gauge and sound rigs differ by, or by a grade or a choice. Ears and eyes make no mistake
here. A look that air does not show (filter, wiring, hose) states its answer's chances instead and is named last. Our own twin
stands on both sides: the table says that the catalogue reaches every fault, not how a real one shows.

${table}
`,
  );
}
