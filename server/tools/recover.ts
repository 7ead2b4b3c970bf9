import { openDatabase } from '../src/db/database';
import { leadsOf, recoverLead } from '../src/accounts/recover';

/* Run by `npm run recover`, which says what it is for. */
const { DATABASE_URL } = process.env;
const [signInName, shop] = process.argv.slice(2);
if (!DATABASE_URL) throw new Error('DATABASE_URL is not set: run this through `npm run recover`.');
const database = openDatabase(DATABASE_URL, () => undefined);
try {
  if (signInName === undefined) {
    console.log('  Name whom: npm run recover -- NAME');
    for (const each of await leadsOf(database.db)) {
      console.log(`  ${each.signInName}: ${each.name}, ${each.shopName}`);
    }
  } else {
    const done = await recoverLead(database, signInName, shop);
    if ('trouble' in done) {
      console.error(`  ${done.trouble}`);
      process.exitCode = 1;
    } else {
      console.log(`  ${done.name} is a lead of ${done.shopName} and signs in with`);
      console.log(`  Name      ${done.signInName}`);
      console.log(`  Password  ${done.password}`);
      console.log('  Change it at once, under Shop.');
    }
  }
} finally {
  await database.close();
}
