import { Injectable, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import { EMPTY_CONTENT, type Level, type StratumContent } from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import type { ReuseChoice, ReuseData } from './reuse-dialog';
import { reuseLevels } from './reuse-levels';

/** Makes levels of others, after asking what becomes of their strata; as one edit. */
@Injectable()
export class LevelReuser {
  private readonly dialogs = inject(Dialogs);
  private readonly documents = inject(DocumentRegistry);
  private readonly edits = inject(EditLog);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly tree = this.store.selectSignal(recordsFeature.selectTree);

  /**
   * @param levels that are duplicated; none: a template is chosen
   * @param set in which a level of a template would go
   * @param made told of the first new level
   */
  open(levels: readonly Level[], set: string, made: (first: Level) => void): void {
    const data: ReuseData = { tables: this.tables(), levels, all: this.levels(), tree: this.tree(), set };
    // What a menu asked for has nothing to give the focus back to: the new level takes it.
    void this.dialogs
      .bring(() => import('./reuse-dialog').then(({ ReuseDialog }) => ReuseDialog), data, {
        restoreFocus: levels.length > 0,
      })
      .then((choice) => {
        if (choice) void this.make(choice).then(made);
      });
  }

  private async make({ levels, choices, name, set }: ReuseChoice): Promise<Level> {
    const contents = new Map<string, StratumContent>();
    for (const [id, choice] of choices)
      if (choice !== 'leave out') contents.set(id, (await this.documents.stratum(id)).content());
    const { copies, operations } = reuseLevels(
      this.tables(),
      levels,
      { choices, nameOf: (level) => name ?? `${level.name} copy`, set },
      (id) => contents.get(id) ?? EMPTY_CONTENT,
    );
    const what = levels.length === 1 ? levels[0].name : `${levels.length} levels`;
    await this.edits.commit(
      set === undefined ? `duplicate ${what}` : `${copies[0].name} from the template ${what}`,
      operations,
    );
    return copies[0];
  }
}
