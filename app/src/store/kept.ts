import type { Me } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import { onClock, rememberClock } from '../wire/serverClock';
import { database, toWrite } from './database';

/** Something small kept by name. */
export async function keptByName(name: string): Promise<unknown> {
  return (await database()).get('kept', name);
}

/** Keeps something small by name, or forgets it where it is undefined. */
export async function keepByName(name: string, value: unknown): Promise<void> {
  const db = await database();
  if (value === undefined) await db.delete('kept', name);
  else await db.put('kept', value, name);
}

/** Who was last signed in on this device, so that it opens without network. */
export async function keptMe(): Promise<Me | null> {
  return ((await keptByName('me')) as Me | undefined) ?? null;
}

/** Remembers, or forgets, who is signed in. */
export const keepMe = (me: Me | null): Promise<void> => keepByName('me', me ?? undefined);

/** Someone who writes on this device. */
export interface Writer {
  shopId: string;
  personId: string;
}

const lanesName = ({ shopId, personId }: Writer) => `lanes ${shopId} ${personId}`;

/** Every lane a person has written in on this device, the one of now last. */
export async function lanesOf(who: Writer): Promise<readonly string[]> {
  return ((await keptByName(lanesName(who))) as string[] | undefined) ?? [];
}

/** The lane of a person on this device: what they write here is numbered in it, whoever else uses the device. */
export async function laneOf(who: Writer): Promise<string> {
  const tx = await toWrite(['kept']);
  const kept = ((await tx.objectStore('kept').get(lanesName(who))) as string[] | undefined) ?? [];
  const lane = kept.at(-1) ?? uuidv7();
  if (kept.length === 0) await tx.objectStore('kept').put([lane], lanesName(who));
  await tx.done;
  return lane;
}

/** A new lane, where the old one turns out to be in use elsewhere: a device's store may have been copied. */
export async function anotherLane(who: Writer): Promise<string> {
  const lane = uuidv7();
  await keepByName(lanesName(who), [...(await lanesOf(who)), lane]);
  return lane;
}

const CLOCK = 'clock ahead by';
/** The measured offset is written down again once it has moved by this, ms. */
const REMEMBERED_TO_MS = 1_000;

let remembered: number | null = null;
onClock(({ shownAheadMs: aheadMs }) => {
  if (aheadMs === null) return;
  if (remembered !== null && Math.abs(aheadMs - remembered) < REMEMBERED_TO_MS) return;
  remembered = aheadMs;
  // A device that cannot keep it measures it again at its next contact.
  void keepByName(CLOCK, aheadMs).catch(() => undefined);
});

/** Brings in how far the clock was off when it was last measured, before this page was loaded. */
export async function recallClock(): Promise<void> {
  const kept = await keptByName(CLOCK);
  if (typeof kept === 'number') rememberClock(kept);
}

/** Asks the browser not to clear this device's store when it runs short of space. */
export async function askToPersist(): Promise<void> {
  try {
    await navigator.storage?.persist?.();
  } catch {
    // A browser that does not know it keeps things as long as it does.
  }
}
