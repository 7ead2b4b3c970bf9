import type { AnyFact, AnyHeader } from '@keen-bleed/contract';
import { MOST_FACTS_AT_ONCE } from '@keen-bleed/contract/forms';

/** What the next request meets; nothing is a good day. */
export type Weather =
  | 'ok'
  | 'lost-request'
  | 'lost-answer'
  | 'database-down'
  | 'signed-out'
  | 'guest-network'
  | 'proxy'
  | 'broken';

/** A server as the outbox sees it: it keeps what it takes, and can be told to misbehave. */
export class FakeServer {
  logs = new Map<string, AnyHeader>();
  facts = new Map<string, AnyFact[]>();
  photos: string[] = [];
  weather: Weather[] = [];
  /** How many entries each lot that came in held. */
  readonly lots: number[] = [];
  /** Every request, in order: method and path. */
  requests: string[] = [];
  /** What it has against a fact or a header; null where it takes it. */
  refuses: (
    piece: AnyFact | AnyHeader,
  ) => { code: string; message: string; status?: number } | null = () => null;
  /** When logs were closed there, by whoever, ms. */
  readonly closed = new Map<string, number>();
  /** Whether it has room for photos. */
  hasRoom = true;
  /** How far its clock is behind the phone's, ms. */
  behindMs = 0;

  fetch = (path: string, init: { method?: string; body?: unknown }): Promise<Response> => {
    this.requests.push(`${init.method ?? 'GET'} ${path}`);
    const weather = this.weather.shift() ?? 'ok';
    if (weather === 'lost-request') return Promise.reject(new TypeError('network'));
    if (weather === 'database-down')
      return this.answer(503, { code: 'database-unavailable', message: 'away' });
    if (weather === 'signed-out')
      return this.answer(401, { code: 'not-signed-in', message: 'sign in' });
    if (weather === 'guest-network') return Promise.resolve(new Response(null, { status: 204 }));
    // What stands before the server has words of its own, and they look much like the server's.
    if (weather === 'proxy')
      return Promise.resolve(
        new Response('{"code":"BAD_GATEWAY","message":"no upstream"}', {
          status: 502,
          headers: { 'content-type': 'application/json' },
        }),
      );
    if (weather === 'broken') return this.answer(500, { code: 'went-wrong', message: 'broken' });
    const result = this.take(path, init);
    return weather === 'lost-answer' ? Promise.reject(new TypeError('network')) : result;
  };

  held(logId: string) {
    const facts = this.facts.get(logId) ?? [];
    const lanes: Record<string, number> = {};
    for (const { lane, seq } of facts) lanes[lane] = Math.max(seq, lanes[lane] ?? 0);
    return { logId, held: facts.length, lanes, closedAtMs: this.closed.get(logId) ?? null };
  }

  private take(path: string, { body }: { body?: unknown }): Promise<Response> {
    const [, , , kind, id = '', what] = path.split('?')[0]!.split('/');
    if (kind === 'photos') {
      if (!this.hasRoom) return this.answer(409, { code: 'quota-full', message: 'no more photos' });
      this.photos.push(id);
      return this.answer(201, { id, bytes: 1 });
    }
    const sent = JSON.parse(typeof body === 'string' ? body : '{}') as {
      ids?: string[];
      facts?: AnyFact[];
    } & AnyHeader;
    if (path === '/api/v1/logs') return this.open(sent);
    if (path === '/api/v1/logs/held') {
      const known = (sent.ids ?? []).filter((each) => this.logs.has(each));
      return this.answer(200, { logs: known.map((each) => this.held(each)) });
    }
    if (what === 'facts') return this.append(id, sent.facts ?? []);
    if (this.logs.has(id)) return this.answer(200, { facts: this.facts.get(id) ?? [] });
    return this.answer(404, { code: 'not-found', message: 'no such record' });
  }

  private open(header: AnyHeader): Promise<Response> {
    const refusal = this.refuses(header);
    if (refusal) return this.answer(refusal.status ?? 422, refusal);
    this.logs.set(header.id, header);
    return this.answer(200, this.held(header.id));
  }

  private append(id: string, sent: readonly AnyFact[]): Promise<Response> {
    if (!this.logs.has(id))
      return this.answer(404, { code: 'not-found', message: 'no such record' });
    if (sent.length > MOST_FACTS_AT_ONCE) {
      return this.answer(422, { code: 'wrong-shape', message: 'too many at once' });
    }
    this.lots.push(sent.length);
    const facts = this.facts.get(id) ?? [];
    this.facts.set(id, facts);
    for (const [index, fact] of sent.entries()) {
      if (facts.some((each) => each.id === fact.id)) continue;
      const problem = (code: string, message: string, status = 409) =>
        this.answer(status, {
          code,
          message,
          fields: [{ field: `facts.${index}.text`, message }],
        });
      const refusal = this.refuses(fact);
      if (refusal) return problem(refusal.code, refusal.message, refusal.status ?? 422);
      if ('photos' in fact && fact.photos?.some((each) => !this.photos.includes(each))) {
        return problem('photo-missing', 'a photo is missing');
      }
      const next = (this.held(id).lanes[fact.lane] ?? 0) + 1;
      if (fact.seq !== next) {
        return problem(fact.seq > next ? 'facts-missing' : 'place-taken', `next is ${next}`);
      }
      facts.push(fact);
    }
    return this.answer(200, this.held(id));
  }

  private answer(status: number, body: object): Promise<Response> {
    return Promise.resolve(
      new Response(JSON.stringify(body), {
        status,
        headers: {
          'Content-Type': 'application/json',
          'Server-Time': String(Date.now() - this.behindMs),
        },
      }),
    );
  }
}
