import type { LogKindName } from '@keen-bleed/contract';
import { jobKind } from './kinds/job/jobKind';
import { runKind } from './kinds/run/runKind';
import { visitKind } from './kinds/visit/visitKind';
import type { LogKind } from './logKind';

/** Every kind of log. A new kind is one line here, a folder beside the others, and its shapes in the contract. */
const kinds = { run: runKind, visit: visitKind, job: jobKind } as const;

export type LogKinds = typeof kinds;

/** A kind by its name, with its own types. */
export function logKind<K extends LogKindName>(name: K): LogKinds[K] {
  return kinds[name];
}

/** A kind by its name for code that serves every kind; what it is given must be of that kind. */
export function anyLogKind(name: LogKindName): LogKind {
  return kinds[name] as unknown as LogKind;
}
