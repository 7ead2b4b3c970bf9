/* Writes docs/FAULTS.md: what a run by the book shows of every fault. A test holds the file to what the twin says. */
import { writeFileSync } from 'node:fs';
import { faultsDoc, faultsDocPath } from '../src/docs/faultsDoc';

writeFileSync(faultsDocPath, faultsDoc());
