import { headRow } from './headRow';

describe('the row that heads a file’s columns', () => {
  const readings = [
    ['0', '100.1', '99'],
    ['1', '100.2', '98'],
  ];

  it('is the one right before the first two rows of readings', () => {
    expect(headRow([['seconds', 'primary', 'secondary'], ...readings])).toBe(0);
    expect(headRow([['Logger'], ['made', 'today'], ['s', 'psi', 'psi'], ...readings])).toBe(2);
  });

  it('is none where readings begin at once', () => {
    expect(headRow(readings)).toBe(-1);
  });

  it('passes over one row of numbers that stands alone, such as a serial number and a rate', () => {
    expect(headRow([['4711', '25'], ['s', 'psi'], ...readings])).toBe(1);
  });

  it('takes a single row of readings at the very end', () => {
    expect(
      headRow([
        ['s', 'psi'],
        ['0', '100'],
      ]),
    ).toBe(0);
  });

  it('knows a date for a moment, and wants a number beside it', () => {
    expect(
      headRow([
        ['at', 'psi'],
        ['2026-11-27T10:00:00', '99'],
        ['2026-11-27T10:00:01', '98'],
      ]),
    ).toBe(0);
    expect(headRow([['2026-11-27T10:00:00', 'start'], ['s', 'psi'], ...readings])).toBe(1);
    expect(headRow([['7'], ['8'], ['s', 'psi'], ...readings])).toBe(2);
  });

  it('is the first where no readings are found', () => {
    expect(
      headRow([
        ['a', 'b'],
        ['c', 'd'],
      ]),
    ).toBe(0);
    expect(headRow([])).toBe(0);
  });
});
