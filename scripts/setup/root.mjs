import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout's top folder. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '../..');
