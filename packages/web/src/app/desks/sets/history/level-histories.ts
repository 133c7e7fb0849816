import { Injectable, inject } from '@angular/core';
import { Sheets } from '../../../level-desk/sheets';
import { Notices } from '../../../ui/notices';

/** Shows what happened to a level, over its card. Its code is loaded when it is asked for. */
@Injectable()
export class LevelHistories {
  private readonly sheets = inject(Sheets);
  private readonly notices = inject(Notices);

  async show(level: string): Promise<void> {
    const loaded = await import('./history-sheet').catch(() => undefined);
    if (loaded) await this.sheets.open(loaded.HistorySheet, level);
    else this.notices.show('The history could not be loaded. Try again once the server answers.', 8000);
  }
}
