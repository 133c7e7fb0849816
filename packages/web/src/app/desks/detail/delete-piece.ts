import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  counted,
  placeInstead,
  recordUsers,
  usesOfPiece,
  type Kit,
  type Operation,
  type Piece,
  type StratumContent,
} from '@stravel/core';
import { KitWork } from '../../bakes/kit-work';
import { DocumentRegistry } from '../../document/document-registry';
import { recordsFeature } from '../../document/records/records-store';
import { setRecordField } from '../../edits/operations';
import { Ask } from '../../ui/ask';

/** So many strata are named; the rest is counted. */
const NAMED = 6;
const DELETE = '';

/** A stratum that places a piece. */
interface Use {
  readonly stratum: string;
  readonly content: StratumContent;
  readonly placements: number;
  readonly changes: number;
}

/** Deletes a piece, after asking what becomes of its placements wherever in the collection they stand. */
@Injectable()
export class DeletePiece {
  private readonly ask = inject(Ask);
  private readonly work = inject(KitWork);
  private readonly documents = inject(DocumentRegistry);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  async delete(kit: Kit, piece: Piece): Promise<void> {
    const uses = await this.work.guard(() => this.usesOf(piece));
    if (!uses) return;
    const counting = recordUsers(this.tables(), 'piece', piece.id);
    const placements = uses.reduce((sum, one) => sum + one.placements, 0);
    const changes = uses.reduce((sum, one) => sum + one.changes, 0);
    const isUsed = placements + changes + counting.length > 0;
    const answers = await this.ask.for({
      title: `Delete ${piece.name}?`,
      text: isUsed
        ? 'It is used. Choose what replaces it; position, rotation and scale stay.'
        : 'Nothing uses it. Its mesh and its LODs leave the kit.',
      notes: [
        ...uses.slice(0, NAMED).map((one) => this.noteOf(one)),
        ...(uses.length > NAMED ? [`${uses.length - NAMED} more strata`] : []),
        ...counting.map(({ name }) => `counted by ${name}`),
      ],
      questions: isUsed
        ? [
            {
              key: 'other',
              label: 'Replace it by',
              kind: 'choice',
              value: DELETE,
              choices: [
                {
                  value: DELETE,
                  name: placements > 0 ? `nothing: delete ${counted(placements, 'placement')}` : 'nothing',
                },
                ...this.others(piece).map(({ id, name }) => ({ value: id, name })),
              ],
            },
          ]
        : [],
      command: 'Delete',
      fault: ({ other }) =>
        other === DELETE && changes + counting.length > 0
          ? `${[...(changes > 0 ? ['Single levels have it instead of another piece'] : []), ...counting.map(({ name }) => `${name} counts it`)].join(', ')}: choose a piece for its place.`
          : '',
    });
    if (!answers) return;
    const other = String(answers['other'] ?? DELETE);
    const instead = other === DELETE ? null : other;
    const operations: Operation[] = uses.flatMap(({ stratum, content }) =>
      placeInstead(stratum, content, piece.id, instead),
    );
    for (const field of Object.values(this.tables().field))
      if (instead !== null && field.counted === piece.id)
        operations.push(setRecordField('field', field, 'counted', instead));
    await this.work.removePiece(kit, piece, operations);
  }

  /** Pieces that can stand in its place: of its own kit first, then of others. */
  private others(piece: Piece): Piece[] {
    const rank = ({ kit }: Piece): number => (kit === piece.kit ? 0 : 1);
    return Object.values(this.tables().piece)
      .filter(({ id }) => id !== piece.id)
      .sort((a, b) => rank(a) - rank(b) || (a.name < b.name ? -1 : 1));
  }

  private async usesOf(piece: Piece): Promise<Use[]> {
    const uses: Use[] = [];
    const strata = Object.keys(this.tables().stratum);
    for (const [i, stratum] of strata.entries()) {
      this.work.say(i / strata.length, 'looking where it is used');
      const content = (await this.documents.stratum(stratum)).content();
      const found = usesOfPiece(content, piece.id);
      if (found.placements + found.changes > 0) uses.push({ stratum, content, ...found });
    }
    return uses;
  }

  /** 'Dressing of Low Water: 12 placements'. */
  private noteOf({ stratum, placements, changes }: Use): string {
    const { level, stratum: strata } = this.tables();
    const { name, owner } = strata[stratum];
    const of = owner !== null && Object.hasOwn(level, owner) ? ` of ${level[owner].name}` : '';
    const parts = [
      ...(placements > 0 ? [counted(placements, 'placement')] : []),
      ...(changes > 0 ? [counted(changes, 'local change')] : []),
    ];
    return `${name}${of}: ${parts.join(', ')}`;
  }
}
