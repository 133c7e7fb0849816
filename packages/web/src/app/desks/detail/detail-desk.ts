import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  DEFAULT_VIEW,
  RECORDS_DOCUMENT,
  canonicalJson,
  newKey,
  type ChainOptions,
  type DroppedFile,
  type Json,
  type Kit,
  type Operation,
  type Piece,
  type ReadPieces,
  type ViewSettings,
} from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Compute } from '../../compute/compute';
import { WorkInHand } from '../../compute/work-in-hand';
import { recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { create, newId, setRecordField } from '../../edits/operations';
import type { Answers } from '../../ui/ask-dialog';
import { Ask } from '../../ui/ask';
import { kitFault, nameKit } from './kit-edits';
import { detailActions, detailFeature } from './store/detail-store';

/** Files that were read and wait to be taken into a kit. */
export interface WaitingPieces {
  readonly files: readonly DroppedFile[];
  readonly unitMetres: number;
  readonly isZUp: boolean;
  readonly read: ReadPieces;
}

/** What the Detail desk shows and does. */
@Injectable({ providedIn: 'root' })
export class DetailDesk {
  private readonly store = inject(Store);
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly edits = inject(EditLog);
  private readonly ask = inject(Ask);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly work = new WorkInHand();
  readonly state = this.store.selectSignal(detailFeature.selectDetailState);

  readonly progress = this.work.progress;
  readonly failure = this.work.failure;
  /** What was done last, in words. */
  readonly done = signal('');
  readonly waiting = signal<WaitingPieces | undefined>(undefined);
  readonly kits = computed(() => Object.values(this.tables().kit).sort((a, b) => (a.name < b.name ? -1 : 1)));
  readonly kit = computed(
    (): Kit | undefined => this.kits().find(({ id }) => id === this.state().kit) ?? this.kits().at(0),
  );
  readonly pieces = computed((): Piece[] =>
    Object.values(this.tables().piece)
      .filter(({ kit }) => kit === this.kit()?.id)
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
  readonly piece = computed(() => this.pieces().find(({ id }) => id === this.state().piece) ?? this.pieces().at(0));
  readonly view = computed((): ViewSettings => Object.values(this.tables().collection).at(0)?.view ?? DEFAULT_VIEW);

  /** Reads dropped files in the worker; they then wait to be taken in. */
  async read(files: readonly DroppedFile[], unitMetres: number, isZUp: boolean): Promise<void> {
    this.done.set('');
    const read = await this.guard(() =>
      this.work.keep(this.compute.run('read-pieces', { files, unitMetres, isZUp }, { onProgress: this.work.say })),
    );
    if (read) this.waiting.set({ files, unitMetres, isZUp, read });
  }

  /** Takes what waits into a kit: its GLB goes to the server, then one edit names it. @param kitId null for a new kit of that name */
  async takeIn(kitId: string | null, kitName: string): Promise<void> {
    const waiting = this.waiting();
    if (!waiting?.read.glb) return;
    const { glb, pieces } = waiting.read;
    const kit = kitId === null ? undefined : this.tables().kit[kitId];
    await this.guard(async () => {
      const before = kit ? new Uint8Array(await this.api.asset(kit.mesh)) : null;
      const merged = await this.work.keep(
        this.compute.run('add-to-kit', { kit: before, added: glb }, { onProgress: this.work.say }),
      );
      const mesh = await this.upload(merged);
      const id = kit?.id ?? newId();
      const operations: Operation[] = [
        kit
          ? setRecordField('kit', kit, 'mesh', mesh)
          : create(RECORDS_DOCUMENT, 'kit', { id, name: kitName, key: newKey(this.tables(), 'kit', kitName), mesh }),
      ];
      const known = Object.values(this.tables().piece).filter((piece) => piece.kit === id);
      for (const { name, bounds, step } of pieces) {
        const same = known.find((piece) => piece.name === name);
        if (!same)
          operations.push(create(RECORDS_DOCUMENT, 'piece', { id: newId(), kit: id, name, bounds, steps: [step] }));
        else
          operations.push(
            setRecordField('piece', same, 'bounds', bounds as unknown as Json),
            setRecordField('piece', same, 'steps', [step] as unknown as Json),
          );
      }
      await this.edits.commit(
        `take ${pieces.length} piece${pieces.length === 1 ? '' : 's'} into ${kit?.name ?? kitName}`,
        operations,
      );
      this.waiting.set(undefined);
      this.store.dispatch(detailActions.kitChosen({ id }));
      this.done.set(`${pieces.length} piece${pieces.length === 1 ? '' : 's'} came into ${kit?.name ?? kitName}.`);
    });
  }

  /** Kit of a piece, undefined when there is no such piece. */
  kitOf(piece: string): string | undefined {
    return Object.hasOwn(this.tables().piece, piece) ? this.tables().piece[piece].kit : undefined;
  }

  forgetWaiting(): void {
    this.waiting.set(undefined);
  }

  /** Makes chains for some pieces of the kit in hand. */
  async buildChains(pieces: readonly Piece[], options: ChainOptions): Promise<void> {
    const kit = this.kit();
    if (!kit || pieces.length === 0) return;
    this.done.set('');
    await this.guard(async () => {
      const glb = new Uint8Array(await this.api.asset(kit.mesh));
      const built = await this.work.keep(
        this.compute.run(
          'build-chains',
          { glb, names: pieces.map(({ name }) => name), options },
          { onProgress: this.work.say },
        ),
      );
      const mesh = await this.upload(built.glb);
      const operations = [setRecordField('kit', kit, 'mesh', mesh)];
      for (const { name, steps } of built.chains) {
        const piece = pieces.find((one) => one.name === name);
        if (piece && canonicalJson(piece.steps as unknown as Json) !== canonicalJson(steps as unknown as Json))
          operations.push(setRecordField('piece', piece, 'steps', steps as unknown as Json));
      }
      if (mesh !== kit.mesh)
        await this.edits.commit(
          pieces.length === 1 ? `build the chain of ${pieces[0].name}` : `build ${pieces.length} chains`,
          operations,
        );
      const short = built.chains.filter(({ missingSteps }) => missingSteps > 0);
      const named = short.slice(0, 3).map(({ name, why }) => `${name} can’t get all ${options.steps} steps: ${why}`);
      const more = short.length > named.length ? `; ${short.length - named.length} more fall short too` : '';
      this.done.set(
        `${built.chains.length} chain${built.chains.length === 1 ? '' : 's'} built${short.length > 0 ? `; ${named.join('; ')}${more}` : ''}.`,
      );
    });
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

  async setView(field: keyof ViewSettings, value: number): Promise<void> {
    const settings = Object.values(this.tables().collection).at(0);
    if (settings)
      await this.edits.commit('change the picture that detail is chosen for', [
        setRecordField('collection', settings, 'view', { ...this.view(), [field]: value }),
      ]);
  }

  cancel(): void {
    this.work.cancel();
  }

  private async upload(bytes: Uint8Array): Promise<string> {
    this.work.say(1, 'saving the kit');
    const response = await this.api.send('/api/assets', {
      method: 'PUT',
      raw: new Uint8Array(bytes),
      type: 'model/gltf-binary',
    });
    return ((await response.json()) as { name: string }).name;
  }

  private guard<T>(work: () => Promise<T>): Promise<T | undefined> {
    return this.work.do('starting', work);
  }
}
