import type { Request, Response } from 'express';

const HEARTBEAT_MS = 15000;
/** So much may wait for a reader. */
const MAX_UNREAD_BYTES = 8 * 1024 * 1024;

/** One open stream of server events (HTML standard, server-sent events). */
export class EventStream {
  constructor(
    request: Request,
    private readonly response: Response,
  ) {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      Connection: 'keep-alive',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
    request.on('close', () => clearInterval(heartbeat));
  }

  /** @param id what the client sends back as Last-Event-ID after a break; undefined leaves its last one */
  send(event: string, data: unknown, id?: number): void {
    this.sendText(event, JSON.stringify(data), id);
  }

  /** The same of data that is JSON already, in one line. */
  sendText(event: string, json: string, id?: number): void {
    // A reader that does not read is ended; it comes back by its last id.
    if (this.response.writableLength > MAX_UNREAD_BYTES) {
      this.response.destroy();
      return;
    }
    const head = id === undefined ? '' : `id: ${id}\n`;
    this.response.write(`${head}event: ${event}\ndata: ${json}\n\n`);
  }
}
