import { Instrumenter } from '@stryker-mutator/instrumenter';
import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../setup/root.mjs';
import { Trouble } from '../setup/say.mjs';

/** What is broken: where a wrong line would be a wrong judgement, a lost entry or another shop's row. */
const ROOMS = [
  {
    folder: 'core/src',
    without: ['twin', 'gas', 'bench', 'test', 'drawing', 'words'],
  },
  {
    folder: 'server/src',
    without: ['demo', 'test', 'docs', 'random', 'openApi', 'metrics', 'main.ts'],
  },
  { folder: 'app/src/store', without: [] },
];

/**
 * Not drawn: a text made empty. The texts are sentences for a reader, or names that the types hold. A test that
 * repeats every sentence would only be a second copy of it.
 */
const OPTIONS = {
  plugins: null,
  excludedMutations: ['StringLiteral'],
  ignorers: [],
};

const silent = {
  isDebugEnabled: () => false,
  debug: () => undefined,
  info: () => undefined,
  warn: () => undefined,
};

function sources(only) {
  const tracked = execFileSync('git', ['ls-files', ...ROOMS.map(({ folder }) => folder)], {
    cwd: root,
    encoding: 'utf8',
  });
  const left = (name) =>
    ROOMS.some(
      ({ folder, without }) =>
        name.startsWith(`${folder}/`) &&
        !without.some((each) => name.slice(folder.length + 1).split('/')[0] === each),
    );
  return tracked
    .split('\n')
    .filter((name) => /\.tsx?$/.test(name) && !/\.(test|d)\.tsx?$/.test(name))
    .filter((name) => !name.split('/').includes('test'))
    .filter((name) => left(name) && name.startsWith(only));
}

const keyOf = ({ fileName, mutatorName, replacement, location: { start, end } }) =>
  [fileName, start.line, start.column, end.line, end.column, mutatorName, replacement].join('|');

/** What stands in the source where the mutant is. */
function textAt({ fileName, location: { start, end } }) {
  const lines = readFileSync(join(root, fileName), 'utf8').split('\n');
  const inside = lines.slice(start.line, end.line + 1);
  inside[inside.length - 1] = inside.at(-1).slice(0, end.column);
  inside[0] = inside[0].slice(start.column);
  return inside.join('\n');
}

/** Those of an earlier run that lived, where their line still stands as it did: the nearest one like it. */
function livedIn(results, all) {
  const lived = results.filter(({ state }) => state === 'survived' || state === 'unreached');
  const found = lived.flatMap(({ file, line, mutator, was, becomes }) => {
    const far = ({ location }) => Math.abs(location.start.line + 1 - line);
    const [nearest] = all
      .filter(
        (each) =>
          each.fileName === file &&
          each.mutatorName === mutator &&
          each.replacement === becomes &&
          textAt(each) === was,
      )
      .sort((a, b) => far(a) - far(b));
    return nearest ?? [];
  });
  return [...new Set(found)];
}

/**
 * Draws mutants.
 *
 * @param again results of an earlier run: those that lived there are taken instead of drawn; null to draw
 * @returns those drawn, the sources that hold them as switches, and of how many they were drawn
 */
export async function drawMutants({ count, seed, only, again = null }) {
  const instrumenter = new Instrumenter(silent);
  const read = (name) => ({ name, content: readFileSync(join(root, name), 'utf8') });
  const names = sources(only);
  if (names.length === 0) throw new Trouble(`No source begins with ${only}.`);
  const { mutants } = await instrumenter.instrument(
    names.map((name) => ({ ...read(name), mutate: true })),
    OPTIONS,
  );
  const all = mutants.filter(({ status }) => status === undefined);
  const length = Math.min(count, all.length);
  const [drawn] = again
    ? [livedIn(again, all)]
    : fc.sample(fc.shuffledSubarray(all, { minLength: length, maxLength: length }), {
        seed,
        numRuns: 1,
      });
  if (drawn.length === 0) throw new Trouble('None of those that lived stands there any more.');
  const wanted = new Map(drawn.map((mutant, n) => [keyOf(mutant), n]));
  // Again with these alone in the code: thousands of switches would slow every test down.
  const second = await instrumenter.instrument(
    [...new Set(drawn.map(({ fileName }) => fileName))].map((name) => ({
      ...read(name),
      mutate: drawn
        .filter(({ fileName }) => fileName === name)
        .map(({ location: { start, end } }) => ({ start, end })),
    })),
    OPTIONS,
  );
  const placed = second.mutants
    .filter((mutant) => wanted.has(keyOf(mutant)))
    .sort((a, b) => wanted.get(keyOf(a)) - wanted.get(keyOf(b)));
  return {
    drawn: placed.map((mutant) => ({ ...mutant, was: textAt(mutant) })),
    files: second.files,
    of: all.length,
  };
}
