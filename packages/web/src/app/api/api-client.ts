import { Injectable, inject } from '@angular/core';
import {
  EDIT_LINES_TYPE,
  MODEL_HEADER,
  MODEL_VERSION,
  isLongEdit,
  linesOfEdit,
  type Edit,
  type EditHead,
  type KindChanges,
  type LoggedEdit,
  type LooseEndNotes,
  type NewCollection,
} from '@stravel/core';
import { PageAge } from './page-age';
import { problemOf } from './problem-error';

export interface NamedId {
  readonly id: string;
  readonly name: string;
}

/** What restoring an archive into a collection would change. */
export interface RestorePreview {
  /** Number of the last edit that was looked at. */
  readonly edit: number;
  readonly operations: number;
  readonly changes: readonly KindChanges[];
}

/** A collection as the start page lists it. */
export interface ListedCollection extends NamedId {
  readonly levels: number;
  /** Time of the last change, ISO 8601. */
  readonly changedAt: string;
  /** Stored bytes: content, history, bakes and meshes. */
  readonly bytes: number;
  /** Time at which it went to the bin, null while in use. */
  readonly binnedAt: string | null;
}

export interface CollectionList {
  readonly collections: readonly ListedCollection[];
  readonly binned: readonly ListedCollection[];
  /** Whether the server can make the demo collection. */
  readonly hasDemo: boolean;
}

export interface SnapshotIndex {
  readonly sequence: number;
  readonly chunks: readonly { readonly kind: string; readonly chunk: number; readonly count: number }[];
}

export interface ChunkAnswer {
  readonly sequence: number;
  readonly bytes: Uint8Array;
}

/** A job as the server tells of it. */
export interface Job {
  readonly id: string;
  readonly collection: string;
  readonly kind: string;
  readonly state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly progress: number;
  readonly stage: string;
  readonly error: string | null;
  /** What it has to tell when it is done. */
  readonly result: unknown;
}

/** The server's routes, typed. Every failure is a ProblemError, or a TypeError when the server cannot be reached. */
@Injectable({ providedIn: 'root' })
export class ApiClient {
  private readonly age = inject(PageAge);

  async people(): Promise<NamedId[]> {
    return (await this.json<{ people: NamedId[] }>('/api/people')).people;
  }

  createPerson(name: string): Promise<NamedId> {
    return this.json('/api/people', { method: 'POST', body: { name } });
  }

  async renamePerson(id: string, name: string): Promise<void> {
    await this.send(`/api/people/${id}`, { method: 'PATCH', body: { name } });
  }

  collections(): Promise<CollectionList> {
    return this.json('/api/collections');
  }

  createCollection(wanted: NewCollection): Promise<NamedId> {
    return this.json('/api/collections', { method: 'POST', body: wanted });
  }

  copyCollection(id: string, name: string, withLevels: boolean): Promise<NamedId> {
    return this.json(`/api/collections/${id}/copy`, { method: 'POST', body: { name, withLevels } });
  }

  async renameCollection(id: string, name: string, person: string): Promise<void> {
    await this.send(`/api/collections/${id}`, { method: 'PATCH', body: { name, person } });
  }

  async binCollection(id: string): Promise<void> {
    await this.send(`/api/collections/${id}`, { method: 'DELETE' });
  }

  async restoreFromBin(id: string): Promise<void> {
    await this.send(`/api/collections/bin/${id}/restore`, { method: 'POST', body: {} });
  }

  async deleteForGood(id: string): Promise<void> {
    await this.send(`/api/collections/bin/${id}`, { method: 'DELETE' });
  }

  async openDemo(): Promise<string> {
    return (await this.json<{ id: string }>('/api/collections/demo', { method: 'POST', body: {} })).id;
  }

  restore(archive: Blob): Promise<NamedId & { readonly loose: LooseEndNotes }> {
    return this.json('/api/collections/restore', { method: 'POST', raw: archive, type: 'application/zip' });
  }

  /** What restoring an archive into a collection would change. */
  previewRestore(collection: string, archive: Blob): Promise<RestorePreview & { readonly loose: LooseEndNotes }> {
    return this.json(`/api/collections/${collection}/restore/preview`, {
      method: 'POST',
      raw: archive,
      type: 'application/zip',
    });
  }

  restoreInto(collection: string, archive: Blob, edit: number, person: string): Promise<RestorePreview> {
    return this.json(`/api/collections/${collection}/restore?edit=${edit}&person=${person}`, {
      method: 'POST',
      raw: archive,
      type: 'application/zip',
    });
  }

  archiveUrl(collection: string): string {
    return `/api/collections/${collection}/archive`;
  }

  snapshot(collection: string, document: string): Promise<SnapshotIndex> {
    return this.json(`/api/collections/${collection}/documents/${document}`);
  }

  async chunk(collection: string, document: string, kind: string, chunk: number): Promise<ChunkAnswer> {
    const response = await this.send(
      `/api/collections/${collection}/documents/${document}/chunks/${kind}/${chunk}`,
      {},
    );
    return {
      sequence: Number(response.headers.get('Stravel-Sequence')),
      bytes: new Uint8Array(await response.arrayBuffer()),
    };
  }

  async editsOfDocument(collection: string, document: string, after: number): Promise<LoggedEdit[]> {
    return (
      await this.json<{ edits: LoggedEdit[] }>(
        `/api/collections/${collection}/edits?document=${document}&after=${after}`,
      )
    ).edits;
  }

  /** What a person has done last, without what it changed. */
  async editsOfPerson(collection: string, person: string): Promise<EditHead[]> {
    return (await this.json<{ edits: EditHead[] }>(`/api/collections/${collection}/edits?person=${person}`)).edits;
  }

  edit(collection: string, id: string): Promise<LoggedEdit> {
    return this.json(`/api/collections/${collection}/edits/${encodeURIComponent(id)}`);
  }

  /** Long edits go as lines: neither side has to hold still while they are written or read. */
  async appendEdit(collection: string, edit: Edit): Promise<{ sequence: number; at: string }> {
    const url = `/api/collections/${collection}/edits`;
    return isLongEdit(edit)
      ? this.json(url, { method: 'POST', raw: await linesInSlices(edit), type: EDIT_LINES_TYPE })
      : this.json(url, { method: 'POST', body: edit });
  }

  /** Long edits come by their number and are fetched. */
  eventsUrl(collection: string, after: number): string {
    return `/api/collections/${collection}/events?after=${after}&long=fetched`;
  }

  startJob(collection: string, kind: string): Promise<Job> {
    return this.json(`/api/collections/${collection}/jobs/${kind}`, { method: 'POST', body: {} });
  }

  async cancelJob(collection: string, id: string): Promise<void> {
    await this.send(`/api/collections/${collection}/jobs/${id}`, { method: 'DELETE' });
  }

  /** Keeps a picture's file; gives the name of its asset. */
  async putPicture(file: Blob): Promise<string> {
    const { name } = (await (
      await this.send('/api/pictures', { method: 'PUT', raw: file, type: file.type })
    ).json()) as { name: string };
    return name;
  }

  async asset(name: string): Promise<ArrayBuffer> {
    return (await this.send(`/api/assets/${name}`, {})).arrayBuffer();
  }

  /** Any JSON route. */
  async json<T>(url: string, options: RequestOptions = {}): Promise<T> {
    return (await this.send(url, options)).json() as Promise<T>;
  }

  /** A bake with its key. */
  async keyed<T>(url: string): Promise<{ readonly key: string; readonly value: T }> {
    const response = await this.send(url, {});
    return { key: response.headers.get('Stravel-Key') ?? '', value: (await response.json()) as T };
  }

  async send(url: string, options: RequestOptions): Promise<Response> {
    const response = await fetch(url, {
      method: options.method ?? 'GET',
      headers: {
        [MODEL_HEADER]: String(MODEL_VERSION),
        ...options.headers,
        ...(options.body === undefined && options.raw === undefined
          ? {}
          : { 'Content-Type': options.type ?? 'application/json' }),
      },
      signal: options.signal,
      body: options.raw ?? (options.body === undefined ? undefined : JSON.stringify(options.body)),
    });
    this.age.hear(response.headers.get(MODEL_HEADER));
    if (!response.ok) throw await problemOf(response);
    return response;
  }
}

/** Lines that are written before the page gets its turn. */
const LINES_A_SLICE = 500;

async function linesInSlices(edit: Edit): Promise<Blob> {
  const slices: string[] = [];
  let slice = '';
  let count = 0;
  for (const line of linesOfEdit(edit)) {
    slice += line;
    if (++count % LINES_A_SLICE !== 0) continue;
    slices.push(slice);
    slice = '';
    await new Promise((resolve) => setTimeout(resolve));
  }
  return new Blob([...slices, slice]);
}

interface RequestOptions {
  readonly signal?: AbortSignal;
  readonly method?: string;
  readonly body?: unknown;
  readonly raw?: Blob | Uint8Array<ArrayBuffer>;
  readonly type?: string;
  readonly headers?: Readonly<Record<string, string>>;
}
