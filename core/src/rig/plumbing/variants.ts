import type { PartRole } from '../partsOf';

/** What a part of a role can be, beyond that. */
export interface Variant {
  id: string;
  title: string;
}

const VARIANTS: Partial<Record<PartRole, readonly Variant[]>> = {
  compressor: [
    { id: 'gear', title: 'driven by gears' },
    { id: 'belt', title: 'driven by a belt' },
  ],
  'double-check': [
    { id: 'level', title: 'mounted level' },
    { id: 'not-level', title: 'not level' },
  ],
  dryer: [
    { id: 'own-volume', title: 'purges from its own volume' },
    { id: 'service-tank', title: 'purges from a service tank' },
  ],
  drain: [
    { id: 'hand', title: 'opened by hand' },
    { id: 'cord', title: 'opened by a cord' },
    { id: 'automatic', title: 'automatic' },
  ],
  coupler: [
    { id: 'polarised', title: 'polarised' },
    { id: 'plain', title: 'fits either way' },
  ],
};

/** By id, where parts of one role differ in what they can be. */
const BY_PART: Readonly<Record<string, readonly Variant[]>> = {
  'anti-compounding': [
    { id: 'relay-delivery', title: 'fed from the relay' },
    { id: 'foot-delivery', title: 'fed from the foot valve' },
    { id: 'quick-release', title: 'a quick-release with a two-way check' },
  ],
};

/** What a part can be; empty where its role says it all. */
export const variantsOf = ({ id, role }: { id: string; role: PartRole }): readonly Variant[] =>
  BY_PART[id] ?? VARIANTS[role] ?? [];
