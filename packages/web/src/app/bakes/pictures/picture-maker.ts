import { Injectable, Injector, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { errorText, type Level } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { pictureField } from '../../document/records/picture-field';
import { recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { setRecordField } from '../../edits/operations';
import type { LevelPicture, PictureStudio } from '../../plate/level-picture';
import type { PictureView } from '../../plate/picture-views';

/** How far the pictures are. */
export interface PictureProgress {
  readonly done: number;
  readonly total: number;
  readonly name: string;
}

/** Makes the pictures of levels from their plan or their model, and keeps those that are chosen as files. */
@Injectable({ providedIn: 'root' })
export class PictureMaker {
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly injector = inject(Injector);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private isStopped = false;

  readonly progress = signal<PictureProgress | undefined>(undefined);
  /** Levels of which there is no picture, and why. */
  readonly failures = signal<readonly string[]>([]);

  cancel(): void {
    this.isStopped = true;
  }

  /** Keeps a picture's file. @throws ProblemError */
  readonly upload = (file: Blob): Promise<string> => this.api.putPicture(file);

  /** Gives levels their picture, as one edit. Those that were made before it was cancelled are kept. */
  async make(levels: readonly Level[], view: PictureView): Promise<void> {
    if (this.progress()) return;
    this.isStopped = false;
    const failures: string[] = [];
    const made: { readonly level: string; readonly name: string }[] = [];
    let pictures: LevelPicture;
    let studio: PictureStudio;
    this.progress.set({ done: 0, total: levels.length, name: levels.at(0)?.name ?? '' });
    try {
      // What draws models is large, and not needed until a picture is asked for.
      pictures = this.injector.get((await import('../../plate/level-picture')).LevelPicture);
      studio = pictures.studio();
    } catch (error) {
      this.progress.set(undefined);
      this.failures.set([`any level: this browser cannot draw it. ${errorText(error)}`]);
      return;
    }
    try {
      for (const [done, { id, name }] of levels.entries()) {
        this.progress.set({ done, total: levels.length, name });
        if (this.isStopped) break;
        try {
          made.push({ level: id, name: await this.upload(await pictures.make(studio, id, view)) });
        } catch (error) {
          failures.push(`${name}: ${errorText(error)}`);
        }
      }
    } finally {
      studio.dispose();
      this.progress.set(undefined);
      this.failures.set(failures);
    }
    if (made.length === 0) return;
    const { field, operations } = pictureField(this.tables());
    const { level: records } = this.tables();
    const sets = made.flatMap(({ level, name }) =>
      Object.hasOwn(records, level) ? [setRecordField('level', records[level], `values.${field.key}`, name)] : [],
    );
    await this.edits.commit(
      `picture of ${made.length === 1 ? (records[made[0].level]?.name ?? '') : `${made.length} levels`} from the ${view}`,
      [...operations, ...sets],
    );
  }
}
