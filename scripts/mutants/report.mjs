/** Says how many were killed in which room, and lists what lives on. */
export function report(results, say) {
  const tried = results.filter(({ state }) => state !== 'untried');
  const share = (list) => {
    const killed = list.filter(({ state }) => state === 'killed').length;
    return `${killed} of ${list.length} killed (${((100 * killed) / Math.max(1, list.length)).toFixed(1)} %)`;
  };
  const roomOf = ({ file }) => file.split('/')[0];
  for (const room of new Set(tried.map(roomOf)))
    say(`${room.padEnd(8)} ${share(tried.filter((each) => roomOf(each) === room))}`);
  say(
    `all      ${share(tried)}${tried.length < results.length ? `, ${results.length - tried.length} not tried for want of time` : ''}`,
  );
  const alive = tried.filter(({ state }) => state !== 'killed');
  for (const each of alive.sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line)) {
    const why =
      each.state === 'unreached'
        ? 'no test comes past it'
        : `${each.tried.length} of ${each.covering} test files that come past it ran, none failed`;
    say(
      `  ${each.file}:${each.line} ${each.mutator}: ${oneLine(each.was)} -> ${oneLine(each.becomes)}: ${why}`,
    );
  }
}

const MOST_SHOWN = 90;

function oneLine(text) {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length > MOST_SHOWN ? `${line.slice(0, MOST_SHOWN)}…` : line;
}
