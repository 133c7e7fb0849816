import { Injectable, inject } from '@angular/core';
import { recipeSpec, sectionSubject, type RecipeInputs, type Section } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Compute, type Run } from '../../compute/compute';
import { takenSection } from '../../compute/sent-section';
import { EditLog } from '../../edits/edit-log';
import { Session } from '../../session';

/** A section that takes longer to make is asked of the server as well, milliseconds. */
const QUICK_MS = 200;

interface KeptBytes {
  readonly key: string;
  readonly bytes: Uint8Array;
}

/** Sections that take long to make, from the server where it keeps them and is faster. */
@Injectable({ providedIn: 'root' })
export class KeptSections {
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly edits = inject(EditLog);
  private readonly session = inject(Session);

  /** A section by what it reads. The newest of a recipe ends those before it. */
  bring(stratum: string, reads: RecipeInputs, onProgress: (fraction: number, stage: string) => void): Run<Section> {
    const make = (): Run<Section> => this.make(reads, onProgress);
    const collection = this.session.collection();
    const isKnownThere = this.edits.saveState().state === 'saved';
    if (!collection || !isKnownThere || recipeSpec(reads.recipe).cost(reads).ms <= QUICK_MS) return make();
    const url = `/api/collections/${collection.id}/bakes/section/${sectionSubject(stratum, reads.recipe.id)}`;
    const stop = new AbortController();
    const kept = this.kept(url, reads, stop.signal).catch(() => undefined);
    // Waiting alone took longer than making wherever the server had something else in hand: the first to be there counts.
    let making = make();
    const bring = async (): Promise<Section> => {
      const made = making.result.finally(() => stop.abort());
      const keptOrMade = async (): Promise<KeptBytes | Section> => (await kept) ?? made;
      const first = await Promise.race([made, keptOrMade()]);
      if (!isBytes(first)) return first;
      making.cancel();
      await made.catch(() => undefined);
      return this.compute
        .run('open-section', first)
        .result.then(takenSection)
        .catch(() => (making = make()).result);
    };
    return {
      result: bring(),
      cancel: () => {
        stop.abort();
        making.cancel();
      },
    };
  }

  /** A section made here, whatever the server keeps. The newest of a recipe ends those before it. */
  make(reads: RecipeInputs, onProgress: (fraction: number, stage: string) => void): Run<Section> {
    const run = this.compute.run('make-section', reads, { onProgress, slot: `section ${reads.recipe.id}` });
    return { result: run.result.then(takenSection), cancel: () => run.cancel() };
  }

  /** Undefined where the server keeps none of just what is read. */
  private async kept(url: string, reads: RecipeInputs, signal: AbortSignal): Promise<KeptBytes | undefined> {
    const [key, answer] = await Promise.all([
      this.compute.run('section-key', reads).result,
      this.api.send(url, { signal }),
    ]);
    if (answer.headers.get('Stravel-Key') !== key) return undefined;
    return { key, bytes: new Uint8Array(await answer.arrayBuffer()) };
  }
}

function isBytes(one: Section | KeptBytes): one is KeptBytes {
  return 'bytes' in one;
}
