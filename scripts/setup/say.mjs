/** One plain line about what is being done. */
export function say(line) {
  console.log(`  ${line}`);
}

/** What a command’s exit code says; RUNNING has the list. */
export const ENDED = {
  /** It was not done, and nothing was changed. */
  failed: 1,
  /** What was looked at is not what was recorded, or a backup is not whole. */
  wrong: 2,
  /** It was asked for what is not there, or without what it needs to know. */
  asked: 3,
  /** Something stands in the way that will pass: Keen Bleed runs, or the database does not answer. */
  busy: 4,
};

/** Something the person at the keyboard has to put right; shown without a stack. */
export class Trouble extends Error {
  constructor(message, code = ENDED.failed) {
    super(message);
    this.code = code;
  }
}

/** Runs a script's main function; trouble is explained, anything else is a bug and shown whole. */
export async function runMain(main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Trouble ? `\n  ${error.message}\n` : error);
    process.exitCode = error instanceof Trouble ? error.code : ENDED.failed;
  }
}
