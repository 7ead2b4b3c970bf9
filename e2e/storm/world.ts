import type { Unit } from '@keen-bleed/contract';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as delay } from 'node:timers/promises';
import pg from 'pg';
import { DEFAULT_QUOTAS, type Quotas } from '../../server/src/http/quotas';
import {
  addTruck,
  makeStaff,
  openTestShop,
  testPassword,
  type Staff,
  type TestShop,
} from '../../server/src/test/testShop';

/** What may be made of a person by a lead. */
export type Standing = 'technician' | 'lead' | 'viewer' | 'gone';

/** The shop's side of the storm: the real server over a real PostgreSQL, which dies, comes back and is restored. */
export class World {
  private server: Server | null = null;
  private port = 0;
  readonly realFetch = globalThis.fetch;

  private constructor(
    private readonly shop: TestShop,
    /** With the rights of the tables' owner, as whoever restores a backup has them. */
    private readonly owner: pg.Client,
    readonly staff: Staff,
    readonly unit: Unit,
    /** How much the shop may keep, as whoever runs the server has set it. */
    readonly quotas: Quotas,
  ) {}

  static async made(): Promise<World> {
    const quotas = { ...DEFAULT_QUOTAS };
    const shop = await openTestShop({ quotas });
    const staff = await makeStaff(shop, 'storm');
    const owner = new pg.Client({ connectionString: shop.ownerUrl });
    await owner.connect();
    const world = new World(shop, owner, staff, await addTruck(staff.lead, '1'), quotas);
    await world.up();
    return world;
  }

  get isUp(): boolean {
    return this.server !== null;
  }

  async up(): Promise<void> {
    if (this.server) return;
    const starting = createServer(this.shop.app);
    await new Promise<void>((resolve) => starting.listen(this.port, '127.0.0.1', resolve));
    this.port = (starting.address() as AddressInfo).port;
    this.server = starting;
  }

  async down(): Promise<void> {
    const stopping = this.server;
    this.server = null;
    if (!stopping) return;
    stopping.closeAllConnections();
    await new Promise((resolve) => stopping.close(resolve));
  }

  /**
   * The server's process is killed some milliseconds from now: nothing it was about to answer goes out, and what it was
   * writing is undone, as its connections to the database are gone with it.
   */
  async kill(afterMs: number): Promise<void> {
    await delay(afterMs);
    await this.down();
    await this.owner.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
  }

  /** Connections to the database that were taken and not given back. */
  get connectionsOut(): number {
    const { totalCount, idleCount } = this.shop.database.pool;
    return totalCount - idleCount;
  }

  ask(path: string, init: RequestInit): Promise<Response> {
    return this.realFetch(`http://127.0.0.1:${this.port}${path}`, init);
  }

  /** Makes somebody what they are from now on, beside what they have open. */
  async make(personId: string, standing: Standing): Promise<void> {
    await (standing === 'gone'
      ? this.owner.query('update people set active = false where id = $1', [personId])
      : this.owner.query('update people set active = true, role = $2 where id = $1', [
          personId,
          standing,
        ]));
  }

  /**
   * What a backup of an earlier hour leaves of a record: its entries up to a place and the photos they name, or nothing
   * where it was made before the record was begun.
   */
  async restore(logId: string, upTo: number | null): Promise<void> {
    await this.owner.query('begin');
    // A restore writes what was: the triggers that hold what is recorded are not asked.
    await this.owner.query('set local session_replication_role = replica');
    await this.owner.query('delete from facts where log_id = $1 and place > $2', [
      logId,
      upTo ?? 0,
    ]);
    await this.owner.query(
      `delete from blobs where log_id = $1 and not exists (
        select from facts where facts.log_id = $1 and facts.fact->'photos' ? blobs.id::text)`,
      [logId],
    );
    await this.owner.query(
      'update logs set fact_count = (select count(*) from facts where log_id = $1) where id = $1',
      [logId],
    );
    if (upTo === null) {
      await this.owner.query('delete from log_units where log_id = $1', [logId]);
      await this.owner.query('delete from logs where id = $1', [logId]);
    }
    await this.owner.query('commit');
  }

  /** The cookie of a person who signs in. */
  async cookieOf(name: string): Promise<string> {
    const answer = await this.ask('/api/sign-in', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ signInName: name, password: testPassword }),
    });
    const cookie = answer.headers.getSetCookie().find((each) => each.startsWith('kb.sid='));
    return cookie?.split(';')[0] ?? '';
  }

  async end(): Promise<void> {
    await this.down();
    await this.owner.end();
    await this.shop.close();
  }
}
