import type { Me } from '@keen-bleed/contract';
import { createSession, type DefaultSessionState, type Session } from 'better-sse';
import type { Request, Response } from 'express';
import type { Bus } from '../bus/bus';

interface Open {
  shopId: string;
  personId: string;
  sid: string;
  end: () => void;
}

/**
 * Streams of events that are open, each with whose right it hangs on. When that changes its streams are ended; a page
 * that may still follow asks again by itself.
 */
export class Streams {
  private readonly open = new Set<Open>();

  /** @param bus tells of rights that changed, here or on another server */
  constructor(bus: Bus) {
    bus.on('rights', ({ shopId, personId, sid }) => {
      for (const each of [...this.open]) {
        const isTheirs = each.shopId === shopId && each.personId === personId;
        if (isTheirs && (sid === undefined || sid === each.sid)) each.end();
      }
    });
  }

  /** How many are open. */
  get size(): number {
    return this.open.size;
  }

  /** Opens a stream for whoever asks. */
  async start(me: Me, request: Request, response: Response): Promise<Session<DefaultSessionState>> {
    const each: Open = {
      shopId: me.shopId,
      personId: me.personId,
      sid: request.sessionID,
      end: () => response.end(),
    };
    this.open.add(each);
    response.once('close', () => this.open.delete(each));
    return createSession(request, response);
  }
}
