import { Injectable, inject } from '@angular/core';
import { setField } from '../../../../edits/operations';
import { OpenLevel } from '../../../../document/level/open-level';
import { Ask } from '../../../../ui/ask';
import { LayoutDesk } from '../../editing/layout-desk';
import { allOf, command } from '../item-desk';

/** Lets another piece stand where some do. */
@Injectable()
export class ReplacePiece {
  private readonly ask = inject(Ask);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);

  async replace(): Promise<void> {
    const items = this.desk.selectedOf('placement');
    const first = items.at(0);
    if (!first) return;
    const answers = await this.ask.for({
      title: `Replace ${this.desk.countText(items)}`,
      text: 'Position, rotation, scale, group and custom values stay.',
      questions: [
        {
          key: 'piece',
          label: 'Piece',
          kind: 'choice',
          value: first.item.piece,
          choices: this.openLevel.piecesByName().map(({ id, name }) => ({ value: id, name })),
        },
      ],
      command: 'Replace',
    });
    if (!answers) return;
    const piece = String(answers['piece']);
    const operations = items
      .filter(({ item }) => item.piece !== piece)
      .map(({ stratum, kind, item }) => setField(stratum, kind, item, 'piece', piece));
    await this.desk.commit(`replace ${this.desk.countText(items)}`, operations);
  }
}

export const REPLACE_PIECE = command('Replace the piece…', allOf('placement'), ReplacePiece, (desk) => desk.replace());
