/** Reads the stream of a collection's edits. @param address that of the collection @throws Error when the server ends */
export async function followEdits(
  address: string,
  onEdit: (sequence: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const last = await lastSequence(address, signal);
  if (signal.aborted) return;
  onEdit(last);
  for await (const { event, id } of eventsOf(`${address}/events?after=${last}&long=fetched`, signal))
    if (event === 'edit' || event === 'long-edit') onEdit(Number(id));
  if (!signal.aborted) throw new Error('the server has stopped');
}

interface StreamEvent {
  readonly event: string;
  readonly id: string;
  readonly data: string;
}

/** Number of the last edit: a stream begins with it. */
async function lastSequence(address: string, signal: AbortSignal): Promise<number> {
  // Nobody has made so many edits: none of the log is sent.
  for await (const { event, data } of eventsOf(`${address}/events?after=999999999999999`, signal))
    if (event === 'log') return (JSON.parse(data) as { readonly last: number }).last;
  return 0;
}

/** The events of a stream (HTML standard, server-sent events); it ends with the signal, and with the server. */
async function* eventsOf(address: string, signal: AbortSignal): AsyncGenerator<StreamEvent> {
  const mine = new AbortController();
  const stop = (): void => mine.abort();
  signal.addEventListener('abort', stop, { once: true });
  let hasBegun = false;
  try {
    const response = await fetch(address, { signal: mine.signal });
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
