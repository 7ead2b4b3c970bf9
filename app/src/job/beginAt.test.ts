import { beginAt } from './beginAt';
import type { LiveJob } from './useJob';

const likely = { faultId: 'f', unit: 0, partId: 'governor', title: 'set too high' } as never;
const bornOf = (kind: string) =>
  ({
    header: { made: { bornOf: { kind }, found: 'Governor: set too high', units: [{ id: 'u' }] } },
  }) as unknown as LiveJob;

describe('where a conclusion begins', () => {
  it.each([
    ['a failure says what the run showed', 'failure', [], 'Governor: set too high'],
    ['a suspect’s own name is no check', 'suspect', [], ''],
    [
      'a check that was made at the part is one',
      'suspect',
      [
        { partId: 'dryer', said: 'Purges' },
        { partId: 'governor', said: 'Cuts out at 140 psi' },
      ],
      'Cuts out at 140 psi',
    ],
  ])('%s', (_, kind, checks, by) => {
    expect(beginAt(bornOf(kind), likely, checks)).toMatchObject({ by, unitId: 'u' });
  });
});
