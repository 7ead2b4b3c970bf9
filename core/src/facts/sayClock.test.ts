import { sayClockAhead } from './sayClock';

const MIN = 60_000;
const DAY = 1_440 * MIN;

it.each([
  [1_000, '1 s ahead'],
  [59_000, '59 s ahead'],
  [MIN, '1 min ahead'],
  [-89 * MIN, '89 min behind'],
  [90 * MIN, '2 hours ahead'],
  [-47 * 60 * MIN, '47 hours behind'],
  [48 * 60 * MIN, '2 days ahead'],
  [-729 * DAY, '729 days behind'],
  [730 * DAY, '2 years ahead'],
  [-56 * 365.25 * DAY, '56 years behind'],
])('says a clock that is %i ms off as %s', (aheadMs, said) => {
  expect(sayClockAhead(aheadMs)).toBe(said);
});
