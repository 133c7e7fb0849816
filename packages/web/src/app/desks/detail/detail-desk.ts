import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  DEFAULT_VIEW,
  RECORDS_DOCUMENT,
  collisionPatternFault,
  pieceNameFault,
  type ChainOptions,
  type CollisionShape,
  type Kit,
  type Piece,
  type ViewSettings,
} from '@stravel/core';
import { KitWork, type TakeIn } from '../../bakes/kit-work';
import { recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { remove, setRecordField } from '../../edits/operations';
import type { Answers } from '../../ui/ask-dialog';
import { Ask } from '../../ui/ask';
import { DeletePiece } from './delete-piece';
import { kitFault, nameKit } from './kit-edits';
import { detailActions, detailFeature } from './store/detail-store';

/** What the Detail desk shows and does. */
@Injectable()
export class DetailDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly ask = inject(Ask);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  /** Goes on when the desk is left. */
  readonly work = inject(KitWork);
  private readonly deleting = inject(DeletePiece);
  readonly state = this.store.selectSignal(detailFeature.selectDetailState);

  readonly kits = computed(() => Object.values(this.tables().kit).sort((a, b) => (a.name < b.name ? -1 : 1)));
  readonly kit = computed(
    (): Kit | undefined => this.kits().find(({ id }) => id === this.state().kit) ?? this.kits().at(0),
  );
  readonly allPieces = computed((): Piece[] => Object.values(this.tables().piece));
  readonly pieces = computed((): Piece[] =>
    this.allPieces()
      .filter(({ kit }) => kit === this.kit()?.id)
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
  readonly piece = computed(() => this.pieces().find(({ id }) => id === this.state().piece) ?? this.pieces().at(0));
  readonly view = computed((): ViewSettings => Object.values(this.tables().collection).at(0)?.view ?? DEFAULT_VIEW);

  /** Takes what waits into a kit, which is in hand then. */
  async takeIn(what: TakeIn): Promise<void> {
    const id = await this.work.takeIn(what);
    if (id !== undefined) this.store.dispatch(detailActions.kitChosen({ id }));
  }

  /** Makes chains for some pieces of the kit in hand. */
  async buildChains(pieces: readonly Piece[], options: ChainOptions): Promise<void> {
    const kit = this.kit();
    if (kit) await this.work.buildChains(kit, pieces, options);
  }

  /** Gives some pieces of the kit in hand a collision. @param shape null for none */
  async setCollisions(pieces: readonly Piece[], shape: CollisionShape | null): Promise<void> {
    const kit = this.kit();
    if (kit) await this.work.setCollisions(kit, pieces, shape);
  }

  /** Asks how meshes are named that are collisions of others; undefined where it stays as it is. */
  async nameCollisions(): Promise<string | undefined> {
    const settings = Object.values(this.tables().collection).at(0);
    if (!settings) return undefined;
    const answers = await this.ask.for({
      title: 'Collision meshes',
      text: 'A mesh of this name is not a piece, but what stops and carries in the place of the mesh called {name}. * at the end stands for any ending.',
      command: 'Save',
      questions: [{ key: 'pattern', label: 'Named', kind: 'text', value: this.work.collisionPattern() }],
      fault: ({ pattern }) => collisionPatternFault(String(pattern).trim()),
    });
    const pattern = answers && String(answers['pattern']).trim();
    if (pattern === undefined || pattern === this.work.collisionPattern()) return undefined;
    await this.edits.commit('name collision meshes', [
      setRecordField('collection', settings, 'collisionPattern', pattern),
    ]);
    return pattern;
  }

  /** Kit of a piece, undefined when there is no such piece. */
  kitOf(piece: string): string | undefined {
    return Object.hasOwn(this.tables().piece, piece) ? this.tables().piece[piece].kit : undefined;
  }

  /** Asks for the name and the key of the kit in hand. */
  async nameKit(): Promise<void> {
    const kit = this.kit();
    if (!kit) return;
    const text = (answers: Answers, key: string): string => String(answers[key]).trim();
    const answers = await this.ask.for({
      title: `Name and key of ${kit.name}`,
      text: 'Files use the key. It stays when the kit is renamed.',
      command: 'Save',
      questions: [
        { key: 'name', label: 'Name', kind: 'text', value: kit.name },
        { key: 'key', label: 'Key', kind: 'text', value: kit.key },
      ],
      fault: (typed) => kitFault(this.tables(), kit, text(typed, 'name'), text(typed, 'key')),
    });
    if (answers)
      await this.edits.commit(`name the kit ${kit.name}`, nameKit(kit, text(answers, 'name'), text(answers, 'key')));
  }

  /** Asks for another name for the piece in hand. */
  async renamePiece(): Promise<void> {
    const [kit, piece] = [this.kit(), this.piece()];
    if (!kit || !piece) return;
    const others = this.pieces().flatMap(({ id, name }) => (id === piece.id ? [] : [name]));
    const answers = await this.ask.for({
      title: `Rename ${piece.name}`,
      text: 'Levels keep the piece: only what it is called changes, here and in the files of the game.',
      command: 'Rename',
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: piece.name }],
      fault: ({ name }) => pieceNameFault(String(name).trim(), others),
    });
    const name = answers && String(answers['name']).trim();
    if (name && name !== piece.name) await this.work.renamePiece(piece, name);
  }

  /** Asks what becomes of the placements of the piece in hand, and deletes it. */
  async deletePiece(): Promise<void> {
    const [kit, piece] = [this.kit(), this.piece()];
    if (kit && piece) await this.deleting.delete(kit, piece);
  }

  /** Deletes the kit in hand, where it has no pieces. */
  async deleteKit(): Promise<void> {
    const kit = this.kit();
    if (!kit || this.pieces().length > 0) return;
    await this.edits.commit(`delete the kit ${kit.name}`, [remove(RECORDS_DOCUMENT, 'kit', kit)]);
    this.store.dispatch(detailActions.kitChosen({ id: null }));
  }

  async setView(field: keyof ViewSettings, value: number): Promise<void> {
    const settings = Object.values(this.tables().collection).at(0);
    if (settings)
      await this.edits.commit('change the camera that LODs are chosen for', [
        setRecordField('collection', settings, 'view', { ...this.view(), [field]: value }),
      ]);
  }
}
