/** An event of a stream. */
export interface ReadEvent {
  readonly event: string;
  readonly id: string;
  readonly data: unknown;
}

/** Reads events from a stream until `count` of some kinds have come. */
export async function readEvents(
  url: string,
  kinds: readonly string[],
  count: number,
  headers: Record<string, string> = {},
): Promise<ReadEvent[]> {
  const abort = new AbortController();
  const response = await fetch(url, { headers, signal: abort.signal });
  const found: ReadEvent[] = [];
  let text = '';
  for await (const part of response.body as unknown as AsyncIterable<Uint8Array>) {
    text += Buffer.from(part).toString('utf8');
    const blocks = text.split('\n\n');
    text = blocks.pop() as string;
    for (const block of blocks) {
      const line = (name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1] ?? '';
      const event = line('event');
      const data: unknown = JSON.parse(line('data') || 'null');
      if (kinds.includes(event)) found.push({ event, id: line('id'), data });
    }
    if (found.length >= count) break;
  }
  abort.abort();
  return found;
}
