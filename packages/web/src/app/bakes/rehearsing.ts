import { Injectable, inject, signal } from '@angular/core';
import { REHEARSAL_VERSION, errorText, type Floors, type Kit, type Piece, type RehearsalResult } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { Compute } from '../compute/compute';
import { WorkInHand } from '../compute/work-in-hand';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';
import { Bakes } from './bakes';
import { KitLoads } from './kit-loads';

/** A rehearsal that is open. */
export interface OpenWalk {
  readonly walk: string;
  /** Of what it was made from. */
  readonly key: string;
  readonly result: RehearsalResult;
}

/** Walks along paths. It goes on while one works elsewhere, and what was found last stays at hand. */
@Injectable({ providedIn: 'root' })
export class Rehearsing {
  private readonly api = inject(ApiClient);
  private readonly bakes = inject(Bakes);
  private readonly compute = inject(Compute);
  private readonly edits = inject(EditLog);
  private readonly kitLoads = inject(KitLoads);
  private readonly session = inject(Session);
  private readonly work = new WorkInHand();
  readonly opened = signal<OpenWalk | undefined>(undefined);
  readonly progress = this.work.progress;
  readonly failure = this.work.failure;

  /** Walks in the page's worker; the server then walks as well and keeps what it finds. */
  async rehearse(level: string, walk: string): Promise<void> {
    const result = await this.work.do('reading the level', async () => {
      const stored = await this.bakes.scene(level, await this.kitLoads.of());
      const floors = await this.floors(stored.scene.pieces, stored.scene.kits);
      const scene = { ...stored, scene: { ...stored.scene, floors } };
      return this.work.keep(this.bakes.make(scene, { kind: 'rehearsal', subject: walk }, this.work.say));
    });
    if (!result) return;
    this.opened.set({ walk, ...result });
    await this.keep(walk);
  }

  cancel(): void {
    this.work.cancel();
  }

  /** Opens the kept rehearsal of a walk. */
  async read(walk: string): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    try {
      const { key, value: result } = await this.api.keyed<RehearsalResult>(
        `/api/collections/${collection.id}/bakes/rehearsal/${walk}`,
      );
      // One that was kept in an older form cannot be read any more; it is stale anyway.
      if (result.version === REHEARSAL_VERSION) this.opened.set({ walk, key, result });
    } catch (error) {
      this.failure.set(errorText(error));
    }
  }

  /** The collisions of pieces; those of kits that have none are not looked for. */
  private async floors(pieces: Readonly<Record<string, Piece>>, kits: Readonly<Record<string, Kit>>): Promise<Floors> {
    const all = Object.values(pieces).filter(({ collision }) => collision);
    const found: Floors[] = [];
    for (const { id, mesh } of Object.values(kits)) {
      const own = all.filter(({ kit }) => kit === id);
      if (own.length === 0) continue;
      const glb = new Uint8Array(await this.api.asset(mesh));
      found.push(await this.work.keep(this.compute.run('kit-floors', { glb, pieces: own })));
    }
    return Object.fromEntries(found.flatMap((floors) => Object.entries(floors)));
  }

  private async keep(walk: string): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    try {
      await this.edits.settled();
      await this.api.json<RehearsalResult>(`/api/collections/${collection.id}/bakes/rehearsal/${walk}`, {
        method: 'POST',
        body: {},
      });
      await this.bakes.refresh();
    } catch (error) {
      this.failure.set(`The rehearsal was not kept. ${errorText(error)}`);
    }
  }
}
