import { unitOf } from '../test/walk';
import { nextCheck, rankingOf, RigModel, Weighing, type Evidence } from './index';

/*
 * The whole loop in ten lines: make a model of a rig, weigh evidence, ask for the next check, answer, repeat. What is
 * answered here is what the model itself would hear of that fault: it shows how the library is used, and proves only
 * that its parts fit together.
 */
it('goes from a complaint to the part in ten lines', () => {
  const model = new RigModel({ unit: unitOf('trailer', '22'), towed: [] });
  const evidence: Evidence[] = [{ kind: 'complaint', atMs: 1, complaintId: 'trailer-drags' }];
  let weighing = new Weighing(model, evidence);
  for (let n = 0; n < 6; n += 1) {
    for (const _ of model.prepare(
      'checks',
      model.faults.map(({ id }) => id),
    ))
      void _;
    const next = nextCheck(weighing);
    if (next.next !== 'check') break;
    const { id } = next.best.check;
    const answer = model.answersTo([id], 'narrowed: #0 relay: exhaust', 1).get(id)!;
    evidence.push({ kind: 'answer', atMs: 2, checkId: id, answer });
    weighing = new Weighing(model, [...evidence]);
  }
  const [first] = rankingOf(weighing).suspects;
  expect(first?.faults.map(({ id }) => id)).toContain('narrowed: #0 relay: exhaust');
  expect(first?.chance).toBeGreaterThan(0.5);
});
