import { MOST_CHUNK_RECORDS, decodeChunk, encodeChunk, isEditableKind, putRecord, type DocumentState, type EditableKind, type JsonRecord } from '@stravel/core';

/** A chunk as it stands in a snapshot. */
export interface StoredChunk {
  readonly kind: string;
  readonly chunk: number;
  readonly bytes: Uint8Array;
}

interface ChunkPlace {
  readonly chunk: number;
}

/**
 * One document in memory. Knows in which chunk each record lies and which chunks have changed since the snapshot, so that
 * a new snapshot writes those alone.
 */
export class ChunkedDocument {
  readonly state: DocumentState = new Map();
  /** Edits since the snapshot on disk. */
  editsSinceSnapshot = 0;
  private readonly places = new Map<string, ChunkPlace>();
  private readonly sizes = new Map<EditableKind, number[]>();
  private readonly dirty = new Map<EditableKind, Set<number>>();

  /** @throws CoreError 'CHUNK_UNREADABLE' */
  static fromChunks(chunks: readonly StoredChunk[]): ChunkedDocument {
    const document = new ChunkedDocument();
    for (const { kind, chunk, bytes } of chunks) {
      if (!isEditableKind(kind)) continue;
      const records = decodeChunk(kind, bytes);
      for (const record of records) {
        const id = record['id'] as string;
        putRecord(document.state, kind, id, record);
        document.places.set(`${kind}\u0000${id}`, { chunk });
      }
      document.sizesOf(kind)[chunk] = records.length;
    }
    return document;
  }

  /** Number of records. */
  get size(): number {
    return this.places.size;
  }

  put(kind: EditableKind, id: string, record: JsonRecord | undefined): void {
    putRecord(this.state, kind, id, record);
    const key = `${kind}\u0000${id}`;
    const place = this.places.get(key);
    if (place) {
      this.markDirty(kind, place.chunk);
      if (!record) {
        this.places.delete(key);
        this.sizesOf(kind)[place.chunk] -= 1;
      }
      return;
    }
    if (!record) return;
    const sizes = this.sizesOf(kind);
    let chunk = sizes.length - 1;
    if (chunk < 0 || sizes[chunk] >= MOST_CHUNK_RECORDS) {
      chunk = sizes.length;
      sizes.push(0);
    }
    sizes[chunk] += 1;
    this.places.set(key, { chunk });
    this.markDirty(kind, chunk);
  }

  /** The chunks that a new snapshot must write, and marks them clean. */
  takeDirtyChunks(): { kind: EditableKind; chunk: number; count: number; bytes: Uint8Array }[] {
    const out: { kind: EditableKind; chunk: number; count: number; bytes: Uint8Array }[] = [];
    for (const [kind, chunks] of this.dirty) {
      const members = new Map<number, JsonRecord[]>([...chunks].map((chunk) => [chunk, []]));
      for (const [id, record] of this.state.get(kind) ?? []) {
        const place = this.places.get(`${kind}\u0000${id}`);
        if (place) members.get(place.chunk)?.push(record);
      }
      for (const [chunk, records] of members) {
        out.push({ kind, chunk, count: records.length, bytes: encodeChunk(kind, records) });
      }
    }
    this.dirty.clear();
    this.editsSinceSnapshot = 0;
    return out;
  }

  private markDirty(kind: EditableKind, chunk: number): void {
    const set = this.dirty.get(kind);
    if (set) set.add(chunk);
    else this.dirty.set(kind, new Set([chunk]));
  }

  private sizesOf(kind: EditableKind): number[] {
    let sizes = this.sizes.get(kind);
    if (!sizes) this.sizes.set(kind, (sizes = []));
    return sizes;
  }
}
