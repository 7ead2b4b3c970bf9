import { ALIVE_WITHIN_MS } from '@keen-bleed/contract/stream-times';
import type { StreamPath } from './routes';

/** Where a server or a proxy turned a stream away, it is asked for again after so long, ms; longer each time. */
const AGAIN_FIRST_MS = 1_000;
const AGAIN_MOST_MS = 15_000;

/**
 * Follows a stream of events for as long as it is wanted. A browser takes up a stream by itself where the network went,
 * and gives up where the server answered anything else, such as for a record it does not have yet or while it
 * restarts: then it is asked for again. A server that goes without a word, as when its plug is pulled, leaves the stream
 * open with nothing in it: that is noticed by what it no longer says.
 *
 * @param path such as `/api/v1/logs/…/live`
 * @param hears what to do with the data of each event, by its name
 * @param onAway told whenever the stream is lost
 * @returns ends it
 */
export function followStream(
  path: StreamPath,
  hears: Readonly<Record<string, (data: string) => void>>,
  onAway?: () => void,
): () => void {
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let silence: ReturnType<typeof setTimeout> | null = null;
  let againMs = AGAIN_FIRST_MS;
  const rest = () => {
    if (silence) clearTimeout(silence);
    silence = null;
  };
  const watch = () => {
    rest();
    silence = setTimeout(() => {
      source.close();
      onAway?.();
      open();
    }, ALIVE_WITHIN_MS);
  };
  const open = () => {
    source = new EventSource(path);
    source.addEventListener('alive', watch);
    source.addEventListener('open', () => {
      againMs = AGAIN_FIRST_MS;
    });
    for (const [name, hear] of Object.entries(hears)) {
      source.addEventListener(name, ({ data }: MessageEvent<string>) => hear(data));
    }
    source.addEventListener('error', () => {
      rest();
      onAway?.();
      if (source.readyState !== EventSource.CLOSED) return;
      timer = setTimeout(open, againMs);
      againMs = Math.min(againMs * 2, AGAIN_MOST_MS);
    });
  };
  open();
  return () => {
    if (timer) clearTimeout(timer);
    rest();
    source.close();
  };
}
