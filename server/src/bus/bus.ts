import { randomUUID } from 'node:crypto';
import pg from 'pg';

/** What servers of one installation tell each other, by topic. Nothing of it is kept: who was away asks again. */
export interface Topics {
  /** A log has grown. */
  grew: { shopId: string; logId: string; held: unknown };
  /** Something was called to a pedal, or heard there. */
  pedal: { shopId: string; unitId: string; said: unknown };
  /** What somebody may do has changed, or their sessions have ended: all of them, or one. */
  rights: { shopId: string; personId: string; sid?: string };
  /** The simulated gauge set of a unit was switched on. */
  gauges: { shopId: string; unitId: string; startedMs: number };
}
export type Topic = keyof Topics;

type Hears<T extends Topic> = (payload: Topics[T]) => void;

/** Passes words between the parts of a server, and between servers where there are several. */
export interface Bus {
  /** Tells everybody who hears a topic: here at once, elsewhere soon. Never fails: what is lost is asked for again. */
  tell<T extends Topic>(topic: T, payload: Topics[T]): void;
  /** Hears a topic. */
  on<T extends Topic>(topic: T, hears: Hears<T>): void;
  /** Told when words of others may have been missed. */
  onMissed(hears: () => void): void;
}

/** A bus within one process. */
export class LocalBus implements Bus {
  private readonly hearers = new Map<Topic, Hears<Topic>[]>();
  private readonly missed: (() => void)[] = [];

  tell<T extends Topic>(topic: T, payload: Topics[T]): void {
    for (const hears of this.hearers.get(topic) ?? []) hears(payload);
  }

  on<T extends Topic>(topic: T, hears: Hears<T>): void {
    this.hearers.set(topic, [...(this.hearers.get(topic) ?? []), hears as Hears<Topic>]);
  }

  onMissed(hears: () => void): void {
    this.missed.push(hears);
  }

  protected tellMissed(): void {
    for (const hears of this.missed) hears();
  }
}

const CHANNEL = 'keen_bleed';
/** PostgreSQL passes on less than 8,000 bytes. */
const MOST_BYTES = 7_500;
const FIRST_RETRY_MS = 200;
const MOST_RETRY_MS = 5_000;

/**
 * The statement that says a word to every server that listens.
 *
 * @param from who says it; it does not hear itself
 */
export function wordFrom<T extends Topic>(
  from: string,
  topic: T,
  payload: Topics[T],
): [text: string, values: string[]] {
  const word = JSON.stringify({ from, topic, payload } satisfies Word);
  // One that is too long goes out without what is held: whoever hears it asks.
  const fits = Buffer.byteLength(word) < MOST_BYTES;
  const short = () => JSON.stringify({ from, topic, payload: { ...payload, held: null } });
  return ['select pg_notify($1, $2)', [CHANNEL, fits ? word : short()]];
}

interface Word {
  from: string;
  topic: Topic;
  payload: Topics[Topic];
}

/** A bus over PostgreSQL’s LISTEN and NOTIFY, for servers that share a database. */
export class PostgresBus extends LocalBus {
  private readonly me = randomUUID();
  private client: pg.Client | null = null;
  private retry: NodeJS.Timeout | undefined;
  private waitMs = FIRST_RETRY_MS;
  private stopped = false;
  private hasListened = false;

  /**
   * @param url the database that is listened on, by a connection of its own
   * @param pool what words go out by
   * @param onTrouble told when the connection breaks; it is made again
   */
  constructor(
    private readonly url: string,
    private readonly pool: pg.Pool,
    private readonly onTrouble: (error: Error) => void,
  ) {
    super();
  }

  /** Begins to listen; resolves once it does, or once a first try has failed. */
  async start(): Promise<void> {
    if (this.stopped) return;
    const client = new pg.Client({ connectionString: this.url });
    client.on('notification', ({ payload }) => this.heard(payload ?? ''));
    const broke = (error: Error) => {
      if (this.client !== client && this.client !== null) return;
      this.client = null;
      client.removeAllListeners('notification');
      this.again(error);
    };
    client.on('error', broke);
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      this.client = client;
      client.once('end', () => broke(new Error('the connection that listens was ended')));
      this.waitMs = FIRST_RETRY_MS;
      // What was said while nobody listened here has to be asked for.
      if (this.hasListened) this.tellMissed();
      this.hasListened = true;
    } catch (error) {
      client.end().catch(() => undefined);
      broke(error as Error);
    }
  }

  /** Stops listening. */
  async stop(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.retry);
    const { client } = this;
    this.client = null;
    client?.removeAllListeners('end');
    await client?.end().catch(() => undefined);
  }

  override tell<T extends Topic>(topic: T, payload: Topics[T]): void {
    super.tell(topic, payload);
    this.pool
      .query(...wordFrom(this.me, topic, payload))
      .catch((error: unknown) => this.onTrouble(error as Error));
  }

  private heard(text: string): void {
    let word: Word;
    try {
      word = JSON.parse(text) as Word;
    } catch {
      return;
    }
    if (word.from !== this.me) super.tell(word.topic, word.payload);
  }

  private again(error: Error): void {
    if (this.stopped) return;
    this.onTrouble(error);
    clearTimeout(this.retry);
    this.retry = setTimeout(() => void this.start(), this.waitMs);
    this.waitMs = Math.min(2 * this.waitMs, MOST_RETRY_MS);
  }
}
