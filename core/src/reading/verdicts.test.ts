import { judgedRun } from '../test/judgement/judgedRun';
import { count, newTally, type Tally } from '../test/judgement/tally';
import { seededNumbers } from '../test/seededNumbers';

/*
 * Verdicts on a made-up truck whose physics, dial, eye and thumb are richer than what the verdicts reckon with. The
 * bench prints the whole table on more of them; here the bounds are the with room for so few cases.
 */
const RUNS = 150;

function tallied(manner: Parameters<typeof judgedRun>[1], seed: number): Map<string, Tally> {
  const random = seededNumbers(seed);
  const tallies = new Map<string, Tally>();
  for (let run = 0; run < RUNS; run += 1) {
    const { figures, truth } = judgedRun(random, manner);
    for (const figure of figures) {
      const true_ = truth[figure.id];
      if (true_ === undefined) continue;
      const tally = tallies.get(figure.id) ?? newTally();
      tallies.set(figure.id, tally);
      count(tally, figure, true_);
    }
  }
  return tallies;
}

describe('verdicts on trucks they were not made for', () => {
  const waited = tallied({ waits: true, readsEnd: false, gauge: 'primary' }, 71);

  it.each([...waited.keys()])(
    'of %s cover the truth, and are seldom wrong when they speak',
    (id) => {
      const { cases, covered, wrongPasses, passes, wrongFails, fails } = waited.get(id)!;
      expect(cases).toBe(RUNS);
      expect(covered / cases).toBeGreaterThan(0.88);
      // Two in a hundred, and two cases more for chance.
      expect(wrongPasses).toBeLessThanOrEqual(0.02 * passes + 3);
      expect(wrongFails).toBeLessThanOrEqual(0.02 * fails + 3);
    },
  );

  it.each(['static-leak', 'applied-leak'])('tell %s clear of its limit nine times in ten', (id) => {
    const { open, cases, clear, clearOpen } = waited.get(id)!;
    expect(clearOpen / clear).toBeLessThan(0.1);
    expect(open / cases).toBeLessThan(0.35);
  });

  it('stay true where nobody waits for the air to settle', () => {
    const hurried = tallied({ waits: false, readsEnd: true, gauge: 'primary' }, 72);
    for (const id of ['static-leak', 'applied-leak']) {
      const { cases, covered, wrongPasses, passes } = hurried.get(id)!;
      expect(covered / cases).toBeGreaterThan(0.9);
      expect(wrongPasses).toBeLessThanOrEqual(0.02 * passes + 3);
    }
  });
});
