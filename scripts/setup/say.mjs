/** One plain line about what is being done. */
export function say(line) {
  console.log(`  ${line}`);
}

/** Something the person at the keyboard has to put right; shown without a stack. */
export class Trouble extends Error {}

/** Runs a script's main function; trouble is explained, anything else is a bug and shown whole. */
export async function runMain(main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Trouble ? `\n  ${error.message}\n` : error);
    process.exitCode = 1;
  }
}
