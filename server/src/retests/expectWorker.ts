import type { RigUnderTest } from '@keen-bleed/core';
import { checksOf, doAll, type CheckAnswer } from '@keen-bleed/core/checks';

/** What a good rig of a description answers to some checks, worked out in a thread of its own. */
export default function expect({
  rig,
  checkIds,
}: {
  rig: RigUnderTest;
  checkIds: readonly string[];
}): Record<string, CheckAnswer> {
  const asked = new Set(checkIds);
  const checks = checksOf(rig, []).filter(({ id }) => asked.has(id));
  return Object.fromEntries(doAll(rig, checks, []));
}
