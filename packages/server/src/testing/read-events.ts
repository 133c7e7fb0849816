import { eventsOf } from '../http/read-events';

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
  const found: ReadEvent[] = [];
  for await (const { event, id, data } of eventsOf(url, new AbortController().signal, headers)) {
    if (kinds.includes(event)) found.push({ event, id, data: JSON.parse(data || 'null') as unknown });
    if (found.length >= count) break;
  }
  return found;
}
