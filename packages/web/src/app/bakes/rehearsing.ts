import { Injectable, inject, signal } from '@angular/core';
import { REHEARSAL_VERSION, errorText, type RehearsalResult } from '@stravel/core';
import { ApiClient } from '../api/api-client';
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
      const scene = await this.bakes.scene(level, await this.kitLoads.of());
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
