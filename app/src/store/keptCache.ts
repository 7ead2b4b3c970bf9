import type { Cache, State } from 'swr';
import { keepByName, keptByName, keptMe } from './kept';

/** What was last read of the shop, so that the app opens with no network: yard, units, rigs, rule sets, their runs. */
const KEPT_KEYS =
  /^\/api\/v1\/(yard|units|rigs|rule-sets|logs\/open|units\/[0-9a-f-]+(\/(runs|visits))?)$/;
const NAME = 'last-read';
const SAVE_AFTER_MS = 500;

/** Grows by one whenever what an answer says changes its shape or its address: what was kept before is read anew. */
const READ_VERSION = 3;

interface Kept {
  version: number;
  personId: string;
  entries: [string, unknown][];
}

/** A cache that writes what is worth keeping to the device a moment after it changes. */
export class KeptCache extends Map<string, State> {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private saving: Promise<void> = Promise.resolve();
  private stops = 0;

  override set(key: string, value: State): this {
    super.set(key, value);
    // Before the map's own constructor has run there is nothing to save.
    if (KEPT_KEYS.test(key) && value.data !== undefined) this.saveSoon();
    return this;
  }

  private saveSoon(): void {
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.saving = this.save();
    }, SAVE_AFTER_MS);
  }

  /** Does not write what was about to be written; done once what was being written has ended. */
  stopSaving(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.stops += 1;
    return this.saving;
  }

  /** Forgets everything, and what was about to be written. */
  forget(): Promise<void> {
    this.clear();
    return this.stopSaving();
  }

  private async save(): Promise<void> {
    const { stops } = this;
    const me = await keptMe().catch(() => null);
    // Somebody may have left meanwhile: nothing of theirs is written after that.
    if (!me || stops !== this.stops) return;
    const entries = [...this.entries()].flatMap(([key, { data }]): [string, unknown][] =>
      KEPT_KEYS.test(key) && data !== undefined ? [[key, data]] : [],
    );
    const kept: Kept = { version: READ_VERSION, personId: me.personId, entries };
    await keepByName(NAME, kept).catch(() => {
      // A full device still works with a network; what is already kept stays.
    });
  }
}

/** The cache of this page. */
let live: KeptCache | null = null;

/** What this device last read for the person who was last here. */
export async function loadKeptCache(): Promise<Cache> {
  const cache = new KeptCache();
  live = cache;
  try {
    const me = await keptMe();
    const kept = (await keptByName(NAME)) as Kept | undefined;
    if (me && kept?.version === READ_VERSION && kept.personId === me.personId) {
      for (const [key, data] of kept.entries) cache.set(key, { data });
    }
  } catch {
    // A device that keeps nothing opens empty.
  }
  return cache;
}

/** Forgets on the device what was read; a page that stands open keeps what it shows. */
export async function dropKeptOnDevice(): Promise<void> {
  await live?.stopSaving();
  await keepByName(NAME, undefined);
}

/** Forgets what was read, on the device and in this page; called when a person leaves the device. */
export async function dropKeptCache(): Promise<void> {
  await live?.forget();
  await keepByName(NAME, undefined);
}
