import type { RuleSet } from '@keen-bleed/contract';
import { outcomeOfRun } from '../log/kinds/run/runKind';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { markRows } from '../reading/markRows';
import { sayFigureLine } from '../reading/figureWords';
import { sayHeadNumber, sayOtherView } from '../reading/twoViews';
import { windowsOf } from '../reading/windowsOf';
import { sayStep } from '../procedure/sayStep';
import { inService } from '../standards/inService';
import { makersFigures } from '../standards/makersFigures';
import { numberedPorts } from '../standards/numberedPorts';
import { roadTest } from '../standards/roadTest';
import { digest } from '../test/digest';
import { rigsOfEverySort, switchedOver } from '../test/rigsOfEverySort';
import { seededNumbers } from '../test/seededNumbers';
import { unitOf, Walk } from '../test/walk';
import { padNow } from './awaiting';
import { doubtsOf } from './doubtsOf';
import { isAnswered, itemsOf } from './findingsOf';
import { ladderMarks } from './ladderMarks';

/*
 * Whole runs on rigs of every sort, well and badly, and all that is made of them: figures, findings, doubts, windows,
 * rows. No proof that a verdict is right, which the simulated worlds give, but none of it changes unseen.
 */
const rigs: Readonly<Record<string, RigUnderTest>> = {
  'a truck': { unit: unitOf('truck', '10'), towed: [] },
  'a tractor and trailer': { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] },
  'a trailer alone': { unit: unitOf('trailer', '24'), towed: [] },
  ...rigsOfEverySort,
};
const SETS: Readonly<Record<string, RuleSet>> = {
  roadTest,
  inService,
  switchedOver,
  makersFigures,
  numberedPorts,
};
/** What is run: every rig by the road test, and each other rule set on a rig or two. */
const RUNS: readonly (readonly [rig: string, set: string, manner: number])[] = [
  ...Object.keys(rigs).flatMap((rig) => [
    [rig, 'roadTest', 0] as const,
    [rig, 'roadTest', 1] as const,
  ]),
  ...['inService', 'switchedOver', 'makersFigures'].flatMap((set) => [
    ['a truck', set, 0] as const,
    ['a tractor and trailer', set, 2] as const,
  ]),
  ['a truck with numbered ports and all there is', 'numberedPorts', 0],
  ['a truck with numbered ports and all there is', 'numberedPorts', 3],
  ['an old truck with one circuit, by its maker', 'makersFigures', 2],
];

/**
 * Walks a run.
 *
 * @param manner 0 as usually found; else seeded: needles off by some psi, odd waits, looks that are not right, a step
 *   left out, a mark taken back, a note
 */
function walked(
  rig: RigUnderTest,
  ruleSet: RuleSet,
  manner: number,
): { walk: Walk; pads: string[] } {
  const walk = new Walk(rig.unit, { towed: rig.towed, ruleSet });
  const { between, normal } = seededNumbers(manner);
  const off = () => (manner === 0 ? 0 : 4 * normal());
  const odd = (one: number) => manner > 0 && between(0, one) < 1;
  const pads: string[] = [];
  for (let guard = 0; walk.state.step && guard < 90; guard += 1) {
    const { step } = walk.state;
    walk.wait(manner === 0 ? 20 : between(3, 40));
    if (odd(15)) walk.add({ kind: 'note', text: 'looked twice' });
    if (odd(18) && step.maySkip && !walk.state.hold) {
      walk.add({ kind: 'skip', stepId: step.id, reason: 'no time' });
      continue;
    }
    const bad = Object.fromEntries(
      itemsOf(step).flatMap(({ key, options }) => (odd(4) ? [[key, options.at(-1)!.value]] : [])),
    );
    if (step.act.kind === 'ready') {
      if (itemsOf(step).length > 0) walk.look(bad);
      walk.ready(step.act.gauges[manner % step.act.gauges.length]);
      continue;
    }
    if (isAnswered(step.act)) {
      walk.look(bad);
      continue;
    }
    if (walk.state.hold) {
      const { endsAtMs } = walk.state.hold;
      const pad = padNow(walk.state, walk.nowMs);
      if (pad) pads.push(`${step.id} ${digest(pad)}`);
      if (manner === 0) walk.holdOver();
      else {
        walk.wait(between(0.5, 1.1) * Math.max(0, (endsAtMs - walk.nowMs) / 1000));
        const at = padNow(walk.state, walk.nowMs);
        if (at) walk.mark(Math.max(0, at.proposedPsi - Math.abs(off()) / 2));
        else walk.holdOver();
      }
      continue;
    }
    const pad = padNow(walk.state, walk.nowMs);
    if (!pad) throw new Error(`nothing is waited for in ${step.id}`);
    pads.push(
      `${step.id} ${sayStep(pad.spec.pad, rig.unit.gauge.unit, ruleSet.school)} ${digest(pad)}`,
    );
    if (pad.spec.key === 'loads-again') walk.wait(200);
    const to = pad.spec.key === 'cut-in' ? 106 : pad.proposedPsi;
    walk.mark(manner === 0 && to === pad.proposedPsi ? undefined : Math.max(0, to + off()));
    if (odd(12)) {
      const last = walk.facts.at(-1)!;
      walk.add({ kind: 'retract', target: last.id });
    }
  }
  walk.add({ kind: 'close', how: 'complete' });
  return { walk, pads };
}

it.each(RUNS)('%s, by %s, in manner %i', (rig, set, manner) => {
  const on = rigs[rig]!;
  const ruleSet = SETS[set]!;
  const { walk, pads } = walked(on, ruleSet, manner);
  const { state } = walk;
  const outcome = outcomeOfRun(walk.log.header, state);
  const { unit } = on.unit.gauge;
  expect(
    [
      `${outcome.verdict}, marks ${digest(outcome)}`,
      ...outcome.figures.map(
        (figure) =>
          `${figure.id}: ${sayFigureLine(figure, unit)} | ${sayHeadNumber(figure, unit)} | ${sayOtherView(figure, unit) ?? ''} | ${figure.asRead}/${figure.verdict} | ${digest(figure)}`,
      ),
      ...outcome.findings.map(
        (finding) => `${finding.stepId} ${finding.key}: ${finding.said} ${digest(finding)}`,
      ),
      ...doubtsOf(state, unit).map((doubt) => `doubt: ${JSON.stringify(doubt)}`),
      ...windowsOf(state.procedure, on, ruleSet).map((window) => JSON.stringify(window)),
      `ladder ${ladderMarks(state)
        .map(({ key, readingPsi }) => `${key} ${readingPsi.toFixed(1)}`)
        .join(', ')}`,
      `rows ${digest(markRows(state, walk.facts))} pads ${digest(pads)}`,
    ].join('\n'),
  ).toMatchSnapshot();
});
