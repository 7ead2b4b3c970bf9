import type { Static } from '@sinclair/typebox';
import type { CompareHeldSchema, FactStamp, HeldLogsSchema, HeldSchema } from './fact';

export interface AppendFacts {
  facts: (FactStamp & { kind: string })[];
}
export type CompareHeld = Static<typeof CompareHeldSchema>;
export type Held = Static<typeof HeldSchema>;
export type HeldLogs = Static<typeof HeldLogsSchema>;
