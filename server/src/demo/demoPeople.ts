import type { Role } from '@keen-bleed/contract';

export const demoShopName = 'Tarn Gap Depot';

/** One password for all made-up people; it is printed at start and worth nothing elsewhere. */
export const demoPassword = 'grit-before-snow';

/** The made-up people of the depot. */
export const demoPeople: readonly {
  name: string;
  signInName: string;
  role: Role;
}[] = [
  { name: 'Maren Osk', signInName: 'maren', role: 'lead' },
  { name: 'Idris Fenn', signInName: 'idris', role: 'technician' },
  { name: 'Paula Quill', signInName: 'paula', role: 'technician' },
  { name: 'Joss Wend', signInName: 'joss', role: 'viewer' },
];
