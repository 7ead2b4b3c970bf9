import { faultTables } from '@keen-bleed/core/twin';
import { join } from 'node:path';

/** Where the table of faults stands in the docs. */
export const faultsDocPath = join(import.meta.dirname, '../../../docs/FAULTS.md');

const HEAD = `# What a run shows of each fault

Made by \`npm run faults\` from the twin, and held to it by a test. A run by the book on a sound rig as it is
described, with one fault at a severity of 0.1, 0.5 and 1: leaks and seats on one scale of free air lost at 110 psi,
0.02 to 4 scfm by equal ratios; narrowed ways by the share of flow they still pass; set points by psi.

Each cell names the figures of the dash that a gauge with divisions of 2 psi tells from a sound rig's, and the
exhausts that are heard (from 0.1 scfm) and are silent on a sound rig, with how the rig stands: loading, unloaded (a
minute after cut-out), released, parked, applied. *Dash* is the least of the three severities at which the dash shows
it. *Reads like* names faults whose dash figures, at some severity, are the same within what the gauge can tell.
Build-up is from 85 to 100 psi at 1,400 rpm; holds are a minute, psi a minute.
`;

/** The table of every fault, as the docs have it. */
export const faultsDoc = (): string => `${HEAD}\n${faultTables()}`;
