import type { BakeCache, Section } from '@stravel/core';
import { movedWith, sentSection, takenSection, type SentSection } from './sent-section';

/** After this long a section is made here, whatever the other worker has, milliseconds. */
const WAIT_MS = 2000;

/** What workers say to each other. */
export type ExchangeMessage =
  | { readonly type: 'ask'; readonly id: number; readonly key: string }
  | { readonly type: 'give'; readonly id: number; readonly section: SentSection | undefined };

/** Lets a worker have the sections that another has made: none is made twice, and none goes through the page. */
export class SectionExchange {
  private port: MessagePort | undefined;
  private readonly asked = new Map<number, (section: Section | undefined) => void>();
  private lastId = 0;

  constructor(private readonly cache: BakeCache) {}

  /** @param port undefined where there is no other worker any more */
  connect(port: MessagePort | undefined): void {
    this.port?.close();
    this.port = port;
    // Who was asked is gone.
    for (const done of [...this.asked.values()]) done(undefined);
    if (port) port.onmessage = ({ data }: MessageEvent<ExchangeMessage>) => this.take(data);
  }

  /** Puts those of some sections into the cache that the other worker has. @param keys of sections */
  async bring(keys: readonly string[]): Promise<void> {
    const { port } = this;
    if (!port) return;
    await Promise.all(
      keys.map(async (key) => {
        if (this.cache.get('section', key)) return;
        const section = await this.ask(port, key);
        if (section) this.cache.put('section', key, section);
      }),
    );
  }

  private ask(port: MessagePort, key: string): Promise<Section | undefined> {
    const id = ++this.lastId;
    return new Promise((resolve) => {
      const done = (section: Section | undefined): void => {
        clearTimeout(timer);
        this.asked.delete(id);
        resolve(section);
      };
      const timer = setTimeout(() => done(undefined), WAIT_MS);
      this.asked.set(id, done);
      port.postMessage({ type: 'ask', id, key } satisfies ExchangeMessage);
    });
  }

  private take(message: ExchangeMessage): void {
    if (message.type === 'give') this.asked.get(message.id)?.(message.section && takenSection(message.section));
    else {
      const kept = this.cache.get('section', message.key);
      const section = kept && sentSection(kept);
      this.port?.postMessage(
        { type: 'give', id: message.id, section } satisfies ExchangeMessage,
        section ? movedWith(section) : [],
      );
    }
  }
}
