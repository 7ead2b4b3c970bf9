import { ApiError } from '../http/apiError';
import { refuseGuessable } from './guessable';

const about = ['Nora Vance', 'nora', 'Elm Street Depot'];
const isRefused = (password: string, names: readonly string[] = about): boolean => {
  try {
    refuseGuessable(password, names);
    return false;
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    expect(error.body).toMatchObject({ code: 'not-right', fields: [{ field: 'password' }] });
    return true;
  }
};

/* Which are common, and what counts as a common word, comes from the package's own lists. */
it.each([
  'password123',
  'qwertyuiop',
  'iloveyou1234',
  '          ',
  'aaaaaaaaaaaaaaaa',
  'abababababababab',
  // Four signs, however often and however mixed.
  'a1b2b1a2a2b1b2a1b1',
  'nora.nora.nora',
  'NoraVance-NoraVance',
  'ElmStreetDepot',
  // Six signs of its own beside the names.
  'noravance kq7x2m',
  'Depot!!!Elm###Street',
])('%s is refused', (password) => {
  expect(isRefused(password)).toBe(true);
});

it.each([
  'plough gate amber tin',
  'rain over gravel',
  // Seven signs of its own beside the names.
  'noravance kq7x2mt',
  'Élan über dreißig Töne',
  'Kw4#z9!pLq2e',
])('%s is taken', (password) => {
  expect(isRefused(password)).toBe(false);
});

it('takes a name for a name only where it is one of this person and shop', () => {
  expect(isRefused('ostrander wickliff', ['Ostrander Wickliff'])).toBe(true);
  expect(isRefused('ostrander wickliff')).toBe(false);
});

it('judges a very long one by its beginning, quickly', () => {
  expect(isRefused('a'.repeat(64) + ' plough gate amber tin')).toBe(true);
  expect(isRefused('plough gate amber tin '.repeat(1_000))).toBe(false);
});
