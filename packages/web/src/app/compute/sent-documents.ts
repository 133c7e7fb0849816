import { plainRecordIfAny } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import type { HeldVersion, HoldMessage } from './hold-protocol';

/** A document as it is sent to workers. */
export type SentDocument = Pick<StratumDocument, 'id' | 'load' | 'version' | 'changesSince' | 'item' | 'whole'>;

/** A message with the buffers that go along with it. */
export interface SentMessage {
  readonly message: HoldMessage;
  readonly transfer: Transferable[];
}

/** Which documents a worker was sent, and in which version: only what changed since goes to it. */
export class SentDocuments {
  private readonly sent = new Map<string, HeldVersion>();

  /** What the worker must be told before it can read some documents as they are. */
  *messagesFor(documents: readonly SentDocument[]): Generator<SentMessage> {
    for (const document of documents) {
      const { id, load, version } = document;
      const known = this.sent.get(id);
      const isOfLoad = known?.load === load;
      if (isOfLoad && known.version === version) continue;
      const changes = isOfLoad ? document.changesSince(known.version) : undefined;
      const now = { document: id, load, version };
      this.sent.set(id, now);
      if (isOfLoad && changes) {
        const items = changes.map(({ kind, id: item }) => ({
          kind,
          id: item,
          record: plainRecordIfAny(document.item(kind, item)),
        }));
        yield { message: { type: 'change', ...now, from: known.version, changes: items }, transfer: [] };
      } else {
        const whole = document.whole();
        yield { message: { type: 'hold', ...now, whole }, transfer: [whole.columns.placement.numbers.buffer] };
      }
    }
  }

  /** Sends documents whole the next time. */
  forget(documents: Iterable<string>): void {
    for (const id of documents) this.sent.delete(id);
  }

  /** What tells the worker to let go of all. */
  releases(): HoldMessage[] {
    const messages = [...this.sent.keys()].map((document): HoldMessage => ({ type: 'release', document }));
    this.sent.clear();
    return messages;
  }
}

/** The versions in which documents are now. */
export function versionsOf(documents: readonly SentDocument[]): HeldVersion[] {
  return documents.map(({ id, load, version }) => ({ document: id, load, version }));
}
