import type { FactStamp } from '@keen-bleed/contract';
import { clockAnswers, correctedMs } from './factTimes';

type Ordered = FactStamp & { kind: string };

/**
 * A log's facts in one order, whoever asks and in whatever order they came in: each lane by its own numbers, and the
 * lanes among each other by the time at which things happened, as the server's clock would have said it. A fact that
 * came twice counts once.
 */
export function inOrder<F extends Ordered>(facts: readonly F[]): F[] {
  const once = [...new Map(facts.map((fact) => [fact.id, fact])).values()];
  const lanes = new Map<string, F[]>();
  for (const fact of once) {
    const lane = lanes.get(fact.lane);
    if (lane) lane.push(fact);
    else lanes.set(fact.lane, [fact]);
  }
  const queues = [...lanes.values()].map((lane) => lane.sort((a, b) => a.seq - b.seq));
  if (queues.length <= 1) return queues[0] ?? [];
  const answers = clockAnswers(once);
  const timed = queues.flatMap((queue) => {
    // A correction keeps the time of what it corrects and still comes after what came before it in its lane.
    let latestMs = -Infinity;
    return queue.map((fact) => {
      latestMs = Math.max(latestMs, correctedMs(fact, answers.get(fact.lane)));
      return { fact, atMs: latestMs };
    });
  });
  return timed
    .sort(
      (a, b) =>
        a.atMs - b.atMs ||
        (a.fact.lane < b.fact.lane ? -1 : a.fact.lane > b.fact.lane ? 1 : a.fact.seq - b.fact.seq),
    )
    .map(({ fact }) => fact);
}
