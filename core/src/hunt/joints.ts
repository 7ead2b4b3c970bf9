import type { HeldState } from '@keen-bleed/contract';
import type { Check, RigStateId } from '../checks/check';

/** Three walks with the bottle; what holds air only while the engine runs is wetted before the first. */
export const passes = ['running', 'parked', 'released', 'applied'] as const;
export type Pass = (typeof passes)[number];

/** Joints of one place, wetted together. */
export interface Joint {
  checkId: string;
  /** The place whose air comes out there, by id. */
  place: string;
  unit: number;
  part: string;
  title: string;
  pass: Pass;
  check: Check;
}

const PASS_OF: Partial<Record<RigStateId, Pass>> = {
  loading: 'running',
  unloaded: 'running',
  parked: 'parked',
  released: 'released',
  applied: 'applied',
  'hand on': 'applied',
};

/** The state in which a pass is walked, as a hold in it is called; null while the engine runs. */
export const HELD_IN: Readonly<Record<Pass, HeldState | null>> = {
  running: null,
  parked: 'parked',
  released: 'released',
  applied: 'applied',
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Every joint of a rig in walking order: by pass, then front to rear, as its checks come. */
export function jointsOf(checks: readonly Check[]): Joint[] {
  const joints = checks.flatMap((check): Joint[] => {
    const { doing, id, unit, part, title, state } = check;
    const pass = PASS_OF[state.id];
    if (doing.does !== 'wet' || pass === undefined) return [];
    const short = capital(title.replace(/^Wet the joints of the /, ''));
    return [{ checkId: id, place: doing.place, unit, part, title: short, pass, check }];
  });
  const at = (joint: Joint) => passes.indexOf(joint.pass) * 100 + joint.unit;
  return joints
    .map((joint, n) => ({ joint, n }))
    .sort((a, b) => at(a.joint) - at(b.joint) || a.n - b.n)
    .map(({ joint }) => joint);
}
