import type { RigUnderTest } from '@keen-bleed/core';
import { demoFleet, demoRigs } from '../src/demo/demoFleet';

/** Every rig of the demo depot, and every unit of it alone that has air of its own. */
export function demoRigsUnderTest(): RigUnderTest[] {
  const units = demoFleet.map(({ draft }, n) => ({
    id: `00000000-0000-7000-8000-0000000001${String(n).padStart(2, '0')}`,
    revision: 1,
    retiredAtMs: null,
    ...draft,
  }));
  const byNumber = (number: string) => {
    const unit = units.find((each) => each.number === number);
    if (!unit) throw new Error(`no demo unit ${number}`);
    return unit;
  };
  return [
    ...demoRigs.map(({ numbers }) => {
      const [unit, ...towed] = numbers.map(byNumber);
      return { unit: unit!, towed };
    }),
    ...units.filter(({ kind }) => kind !== 'dolly').map((unit) => ({ unit, towed: [] })),
  ];
}
