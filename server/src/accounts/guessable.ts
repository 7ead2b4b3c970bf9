import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { ApiError } from '../http/apiError';

/** Of 0 to 4: one that falls to some hundred thousand guesses, or to fewer, is refused. */
const LEAST_SCORE = 2;
/** So many letters and digits have to be left once names are taken out of it. */
const LEAST_BESIDE = 7;
/** Longer ones are judged by their beginning: the work goes with the length. */
const JUDGED = 64;

let estimator: ZxcvbnFactory | null = null;

/**
 * Refuses a password that is guessed at once: a common one, a name, a word said twice, ten spaces.
 *
 * @param about what an intruder tries first: names of the person and the shop
 * @throws ApiError naming the field, with what would be right
 */
export function refuseGuessable(password: string, about: readonly string[]): void {
  estimator ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const words = about.flatMap((each) => [each, ...each.split(/\s+/)]).filter((each) => each !== '');
  const { score } = estimator.check(password.slice(0, JUDGED), words);
  // Spaces alone, or one sign over and over, are no secret whatever they are scored.
  const signs = new Set(password.replaceAll(/\s/g, '').toLowerCase());
  const beside = words.reduce(
    (left, word) => left.replaceAll(word.toLowerCase(), ''),
    password.toLowerCase(),
  );
  const hasOwn = beside.replaceAll(/[^\p{L}\p{N}]/gu, '').length >= LEAST_BESIDE;
  if (score >= LEAST_SCORE && signs.size >= 5 && hasOwn) return;
  const message = 'This password is guessed at once: take four words that do not belong together.';
  throw new ApiError('not-right', message, [{ field: 'password', message }]);
}
