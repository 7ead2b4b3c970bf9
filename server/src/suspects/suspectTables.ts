import { CORE_VERSION, rigKey, type RigUnderTest } from '@keen-bleed/core';
import type { KeptTable } from '@keen-bleed/core/diagnosis';
import type { WorkOut, Working } from './workOut';

/** How far the table of a rig is. */
export type Standing =
  | { standing: 'ready'; rigKey: string; coreVersion: string; table: KeptTable }
  | { standing: 'working'; share: number }
  /** Others are worked out first; the phone does it itself meanwhile. */
  | { standing: 'waiting' }
  /** It came to nothing here: the phone does it itself. */
  | { standing: 'failed' };

/** So many tables are kept, a few megabytes each; the one not asked for longest makes room. */
const MOST_KEPT = 8;
/** A rig that nobody has asked for as long as this is not worked out to its end, ms. */
const FORGOTTEN_AFTER_MS = 60_000;

/**
 * Tables of rigs that are worked out here for phones that would take minutes over it: one at a time, kept in memory by
 * shop, rig and version. Nothing of it is a record: what is lost is worked out again.
 */
export class SuspectTables {
  private readonly kept = new Map<string, KeptTable>();
  private readonly failed = new Set<string>();
  private now: { key: string; working: Working; share: number; askedMs: number } | null = null;

  constructor(
    private readonly workOut: WorkOut,
    private readonly nowMs: () => number = Date.now,
  ) {}

  /** How far the table of a rig is; asking for it sets it going. */
  ask(shopId: string, rig: RigUnderTest): Standing {
    const of = rigKey(rig);
    const key = `${shopId} ${CORE_VERSION} ${of}`;
    const table = this.kept.get(key);
    if (table) {
      this.kept.delete(key);
      this.kept.set(key, table);
      return { standing: 'ready', rigKey: of, coreVersion: CORE_VERSION, table };
    }
    if (this.failed.has(key)) return { standing: 'failed' };
    if (this.now && this.now.key !== key) {
      if (this.nowMs() - this.now.askedMs < FORGOTTEN_AFTER_MS) return { standing: 'waiting' };
      this.stop();
    }
    this.now ??= this.begin(key, rig);
    this.now.askedMs = this.nowMs();
    return { standing: 'working', share: this.now.share };
  }

  /** Ends what is being worked out, as when the server stops. */
  stop(): void {
    this.now?.working.stop();
    this.now = null;
  }

  private begin(key: string, rig: RigUnderTest): NonNullable<typeof this.now> {
    const working = this.workOut(rig, (share) => {
      if (this.now?.key === key) this.now.share = share;
    });
    working.table.then(
      (table) => {
        this.kept.set(key, table);
        const [oldest] = this.kept.keys();
        if (this.kept.size > MOST_KEPT && oldest !== undefined) this.kept.delete(oldest);
        if (this.now?.working === working) this.now = null;
      },
      () => {
        // One that was stopped may be asked for again; one that broke would break again.
        if (this.now?.working !== working) return;
        this.failed.add(key);
        this.now = null;
      },
    );
    return { key, working, share: 0, askedMs: this.nowMs() };
  }
}
