/*
 * Hunts leaks on made-up rigs, and prints how true the budget's chance of a remaining leak is, and how much of the walk a
 * guided hunt needs.
 *
 *   node --import tsx server/bench/hunt.bench.ts --cases 600 --seed 5 --rigs 12,09+31
 */
import { budgetOf } from '@keen-bleed/core/hunt';
import { demoRigsUnderTest } from './demoRigsUnderTest';
import { guided, huntOnce, huntRig, inSections, tenths } from './huntWorld';

const option = (name: string, usual: string) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : (process.argv[at + 1] ?? usual);
};
const cases = Number(option('cases', '600'));
const seed = Number(option('seed', '5'));
const only = option('rigs', '').split(',').filter(Boolean);
const rigs = demoRigsUnderTest()
  .filter(
    ({ unit, towed }) =>
      only.length === 0 || only.includes([unit, ...towed].map(({ number }) => number).join('+')),
  )
  .map(huntRig);
const per = Math.ceil(cases / rigs.length);
const hunted = rigs.flatMap((rig, r) =>
  Array.from({ length: per }, (_, n) => huntOnce(rig, seed * 100_000 + r * 1_000 + n)),
);
console.log(`chance of a leak of 0.05 scfm or more still out there, ${hunted.length} rigs:`);
for (const { told, was, by, of } of tenths(hunted, 60)) {
  console.log(
    `  told ${(100 * told).toFixed(0)}, was ${(100 * was).toFixed(0)} ± ${(100 * by).toFixed(0)} of ${of}`,
  );
}
for (const [from, to] of [
  [0.2, 4],
  [0.05, 0.2],
] as const) {
  const all = rigs.flatMap((rig, r) =>
    Array.from({ length: Math.ceil(per / 3) }, (_, n) => {
      const at = seed * 200_000 + r * 1_000 + n;
      return guided(rig, at, from * (to / from) ** ((n + 0.5) / Math.ceil(per / 3)));
    }),
  );
  const found = all.filter((each) => each.found);
  const half = found.filter((each) => each.wetted <= each.all / 2);
  const share = all.reduce((sum, each) => sum + each.wetted / each.all, 0) / all.length;
  console.log(
    `one leak of ${from} to ${to} scfm, ${all.length} rigs: found in all ${((100 * found.length) / all.length).toFixed(1)} %, within half of the joints ${((100 * half.length) / all.length).toFixed(1)} %, mean share wetted ${(100 * share).toFixed(0)} %`,
  );
}
const [big] = [...rigs].sort((a, b) => b.joints.length - a.joints.length);
if (big) {
  const holds = big.table.rows.map(({ state, needle }) => ({
    state,
    needle,
    psiPerMin: 1.5,
    deviation: 0.3,
    atMs: 1,
  }));
  const fromMs = performance.now();
  for (let n = 0; n < 10; n += 1) budgetOf(big.table, inSections(big.joints), [], holds);
  console.log(
    `a budget of ${big.joints.length} joints and ${holds.length} holds: ${((performance.now() - fromMs) / 10).toFixed(1)} ms`,
  );
}
