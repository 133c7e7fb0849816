/** One event of a stream, as its lines say. */
export interface StreamEvent {
  readonly event: string;
  readonly id: string;
  readonly data: string;
}

/** The events of a stream (HTML standard, server-sent events); it ends with the signal, and with the server. */
export async function* eventsOf(
  address: string,
  signal: AbortSignal,
  headers: Record<string, string> = {},
): AsyncGenerator<StreamEvent> {
  const mine = new AbortController();
  const stop = (): void => mine.abort();
  signal.addEventListener('abort', stop, { once: true });
  let hasBegun = false;
  try {
    const response = await fetch(address, { headers, signal: mine.signal });
    if (!response.ok || !response.body) throw new Error(`the server answered ${response.status}`);
    hasBegun = true;
    const decoder = new TextDecoder();
    let text = '';
    for await (const part of response.body as unknown as AsyncIterable<Uint8Array>) {
      text += decoder.decode(part, { stream: true });
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const line = (name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1] ?? '';
        yield { event: line('event'), id: line('id'), data: line('data') };
      }
    }
  } catch (error) {
    if (!signal.aborted && !hasBegun) throw error;
  } finally {
    signal.removeEventListener('abort', stop);
    mine.abort();
  }
}
