/*
 * Verdicts on made-up trucks and readers that are richer than what the verdicts reckon with: how often intervals hold
 * the truth, how often a pass or a fail is wrong, and how often nothing is told. `node … verdicts.bench.ts RUNS SEED`.
 */
import { seededNumbers } from '../../core/src/test/seededNumbers';
import { judgedRun, type RunManner } from '../../core/src/test/judgement/judgedRun';
import {
  count,
  newTally,
  offTenths,
  sayTally,
  type Tally,
} from '../../core/src/test/judgement/tally';

const runs = Number(process.argv[2] ?? 600);
const seed = Number(process.argv[3] ?? 2026);

const manners: readonly (readonly [string, RunManner])[] = [
  [
    'waits as the pad says, holds end by themselves',
    { waits: true, readsEnd: false, gauge: 'primary' },
  ],
  ['waits as the pad says, reads the end', { waits: true, readsEnd: true, gauge: 'primary' }],
  ['waits for nothing', { waits: false, readsEnd: false, gauge: 'primary' }],
  ['on a master gauge', { waits: true, readsEnd: true, gauge: 'master' }],
];

console.log(
  `Verdicts on ${runs} made-up trucks each, seed ${seed}; true values evenly from 0 to twice the limit`,
);
for (const [title, manner] of manners) {
  const random = seededNumbers(seed);
  const tallies = new Map<string, Tally>();
  for (let n = 0; n < runs; n += 1) {
    const { figures, truth, settled } = judgedRun(random, manner);
    for (const figure of figures) {
      const isTrue = truth[figure.id];
      if (isTrue === undefined) continue;
      const tally = tallies.get(figure.id) ?? newTally();
      tallies.set(figure.id, tally);
      count(tally, figure, isTrue);
      const then = figure.verdict === 'cant-tell' ? settled(figure) : undefined;
      if (then === undefined || then === null) continue;
      tally.tried += 1;
      if (then !== 'cant-tell') tally.settled += 1;
    }
  }
  console.log(`\n  ${title}`);
  console.log(
    `  ${''.padEnd(24)}  cases  covered  wrong pass  wrong fail  can’t tell  can’t tell, clear of the limit  what it asks for settles it  as read: wrong pass  wrong fail  over the truth`,
  );
  for (const [id, tally] of tallies) {
    console.log(sayTally(id, tally));
    for (const off of offTenths(tally)) console.log(`      chance off in ${off}`);
  }
}
