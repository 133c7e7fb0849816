import { eventsOf } from '../http/read-events';

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

/** Number of the last edit: a stream begins with it. */
async function lastSequence(address: string, signal: AbortSignal): Promise<number> {
  // Nobody has made so many edits: none of the log is sent.
  for await (const { event, data } of eventsOf(`${address}/events?after=999999999999999`, signal))
    if (event === 'log') return (JSON.parse(data) as { readonly last: number }).last;
  return 0;
}
