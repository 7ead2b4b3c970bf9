import type { RequestHandler } from 'express';
import type { Server } from 'node:http';

/** Requests that are being answered, streams of events apart: those end only with the server. */
export class InFlight {
  private count = 0;
  private idle: (() => void)[] = [];

  /** How many there are now. */
  get size(): number {
    return this.count;
  }

  /** Counts a request in, and out again once its answer has gone or its asker has. */
  readonly counted: RequestHandler = (request, response, next) => {
    if (request.path.endsWith('/live')) return next();
    this.count += 1;
    response.once('close', () => {
      this.count -= 1;
      if (this.count === 0) for (const tell of this.idle.splice(0)) tell();
    });
    next();
  };

  /** Resolves once nothing is being answered. */
  private whenIdle(): Promise<void> {
    return this.count === 0
      ? Promise.resolve()
      : new Promise((resolve) => {
          this.idle.push(resolve);
        });
  }

  /**
   * Stops a server without losing a request: it takes no more, answers what it has taken, and then ends its streams.
   *
   * @param atMostMs answers that take longer are cut off
   */
  async drain(server: Server, atMostMs: number): Promise<void> {
    const closed = new Promise<void>((resolve) => {
      server.close(() => resolve());
    });
    server.closeIdleConnections();
    let timer: NodeJS.Timeout | undefined;
    const tooLong = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, atMostMs);
    });
    await Promise.race([this.whenIdle(), tooLong]);
    clearTimeout(timer);
    server.closeAllConnections();
    await closed;
  }
}
