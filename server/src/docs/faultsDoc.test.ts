import { readFileSync } from 'node:fs';
import { faultsDoc, faultsDocPath } from './faultsDoc';

// Holds docs to our own twin: it says that the table is current, not that it is true to metal.
describe('the table of faults in the docs', () => {
  it('is what the twin shows: npm run faults writes it anew', () => {
    expect(readFileSync(faultsDocPath, 'utf8')).toBe(faultsDoc());
  }, 180_000);
});
