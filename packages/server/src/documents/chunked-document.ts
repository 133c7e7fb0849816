import {
  CoreError,
  MAX_CHUNK_RECORDS,
  decodeChunk,
  encodeChunk,
  isEditableKind,
  putRecord,
  type DocumentState,
  type EditableKind,
  type JsonRecord,
} from '@stravel/core';
import { Stretches } from '../loop/stretches';

/** A chunk as it stands in a snapshot. */
export interface StoredChunk {
  readonly kind: string;
  readonly chunk: number;
  readonly bytes: Uint8Array;
}

/**
 * One document in memory. Knows in which chunk each record lies and which chunks have changed since the snapshot, so that
 * a new snapshot writes those alone.
 */
export class ChunkedDocument {
  readonly state: DocumentState = new Map();
  /** Edits since the snapshot on disk. */
  editsSinceSnapshot = 0;
  /** Number of the chunk in which a record lies. */
  private readonly places = new Map<EditableKind, Map<string, number>>();
  /** Ids of each chunk. */
  private readonly members = new Map<EditableKind, Set<string>[]>();
  private readonly dirty = new Map<EditableKind, Set<number>>();

  /**
   * @param name of the document, for what is told of it
   * @throws CoreError 'CHUNK_UNREADABLE', 'CHUNK_KIND'
   */
  static async fromChunks(
    name: string,
    chunks: readonly StoredChunk[],
    stretches = new Stretches(),
  ): Promise<ChunkedDocument> {
    const document = new ChunkedDocument();
    for (const { kind: word, chunk, bytes } of chunks) {
      const kind = knownKind(name, word);
      const records = decodeChunk(kind, bytes);
      for (const record of records) {
        const id = record['id'] as string;
        putRecord(document.state, kind, id, record);
        document.placesOf(kind).set(id, chunk);
      }
      document.membersOf(kind)[chunk] = new Set(records.map((record) => record['id'] as string));
      await stretches.rest();
    }
    return document;
  }

  /** Number of records. */
  get size(): number {
    return [...this.places.values()].reduce((sum, places) => sum + places.size, 0);
  }

  put(kind: EditableKind, id: string, record: JsonRecord | undefined): void {
    putRecord(this.state, kind, id, record);
    const places = this.placesOf(kind);
    const place = places.get(id);
    const members = this.membersOf(kind);
    if (place !== undefined) {
      this.markDirty(kind, place);
      if (!record) {
        places.delete(id);
        members[place].delete(id);
      }
      return;
    }
    if (!record) return;
    let chunk = members.length - 1;
    if (chunk < 0 || members[chunk].size >= MAX_CHUNK_RECORDS) chunk = members.push(new Set()) - 1;
    members[chunk].add(id);
    places.set(id, chunk);
    this.markDirty(kind, chunk);
  }

  /** The chunks that a new snapshot must write, and marks them clean. Each is packed when it is come to; nothing must change meanwhile. */
  *takeDirtyChunks(): Generator<{ kind: EditableKind; chunk: number; count: number; bytes: Uint8Array }> {
    const dirty = [...this.dirty];
    this.dirty.clear();
    this.editsSinceSnapshot = 0;
    for (const [kind, chunks] of dirty) {
      const records = this.state.get(kind);
      for (const chunk of chunks) {
        const own = [...this.membersOf(kind)[chunk]].flatMap((id) => {
          const record = records?.get(id);
          return record ? [record] : [];
        });
        yield { kind, chunk, count: own.length, bytes: encodeChunk(kind, own) };
      }
    }
  }

  private markDirty(kind: EditableKind, chunk: number): void {
    const set = this.dirty.get(kind);
    if (set) set.add(chunk);
    else this.dirty.set(kind, new Set([chunk]));
  }

  private placesOf(kind: EditableKind): Map<string, number> {
    let places = this.places.get(kind);
    if (!places) this.places.set(kind, (places = new Map<string, number>()));
    return places;
  }

  private membersOf(kind: EditableKind): Set<string>[] {
    let members = this.members.get(kind);
    if (!members) this.members.set(kind, (members = []));
    return members;
  }
}

/** The kind of a chunk. @throws CoreError 'CHUNK_KIND' naming the document */
export function knownKind(document: string, kind: string): EditableKind {
  if (isEditableKind(kind)) return kind;
  throw new CoreError(
    'CHUNK_KIND',
    `document ${document}: it contains objects of the kind ${JSON.stringify(kind)}, which this Stravel does not know; open it with the Stravel that wrote it`,
    { document, kind },
  );
}
