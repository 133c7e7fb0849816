import { Injectable, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  RECORDS_DOCUMENT,
  canonicalJson,
  counted,
  newKey,
  plainJson,
  type ChainOptions,
  type DroppedFile,
  type Kit,
  type Operation,
  type Piece,
  type ReadPieces,
} from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { Compute } from '../compute/compute';
import { WorkInHand } from '../compute/work-in-hand';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { create, newId, setRecordField } from '../edits/operations';

/** Files that were read and wait to be taken into a kit. */
export interface WaitingPieces {
  readonly files: readonly DroppedFile[];
  readonly unitMetres: number;
  readonly isZUp: boolean;
  readonly read: ReadPieces;
}

/** Reads files into kits and makes LODs. It goes on while one works elsewhere. */
@Injectable({ providedIn: 'root' })
export class KitWork {
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly edits = inject(EditLog);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly work = new WorkInHand();

  readonly progress = this.work.progress;
  readonly failure = this.work.failure;
  /** What was done last, in words. */
  readonly done = signal('');
  readonly waiting = signal<WaitingPieces | undefined>(undefined);

  /** Reads dropped files in the worker; they then wait to be taken in. */
  async read(files: readonly DroppedFile[], unitMetres: number, isZUp: boolean): Promise<void> {
    this.done.set('');
    const read = await this.guard(() =>
      this.work.keep(this.compute.run('read-pieces', { files, unitMetres, isZUp }, { onProgress: this.work.say })),
    );
    if (read) this.waiting.set({ files, unitMetres, isZUp, read });
  }

  /**
   * Takes what waits into a kit: its GLB goes to the server, then one edit names it.
   * @param kitId null for a new kit of that name
   * @returns id of the kit; undefined when it was left or failed
   */
  async takeIn(kitId: string | null, kitName: string): Promise<string | undefined> {
    const waiting = this.waiting();
    if (!waiting?.read.glb) return undefined;
    const { glb, pieces } = waiting.read;
    const kit = kitId === null ? undefined : this.tables().kit[kitId];
    return this.guard(async () => {
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
            setRecordField('piece', same, 'bounds', plainJson(bounds)),
            setRecordField('piece', same, 'steps', plainJson([step])),
          );
      }
      await this.edits.commit(`import ${counted(pieces.length, 'piece')} into ${kit?.name ?? kitName}`, operations);
      this.waiting.set(undefined);
      this.done.set(`${counted(pieces.length, 'piece was', 'pieces were')} imported into ${kit?.name ?? kitName}.`);
      return id;
    });
  }

  /** Gives a piece of a kit another name: its meshes in the kit's GLB and its record, in one edit. */
  async renamePiece(kit: Kit, piece: Piece, name: string): Promise<void> {
    this.done.set('');
    await this.guard(async () => {
      const glb = new Uint8Array(await this.api.asset(kit.mesh));
      const renamed = await this.work.keep(
        this.compute.run('rename-piece', { kit: glb, from: piece.name, to: name }, { onProgress: this.work.say }),
      );
      await this.edits.commit(`rename ${piece.name}`, [
        setRecordField('kit', kit, 'mesh', await this.upload(renamed)),
        setRecordField('piece', piece, 'name', name),
      ]);
      this.done.set(`${piece.name} is called ${name} now.`);
    });
  }

  forgetWaiting(): void {
    this.waiting.set(undefined);
  }

  /** Makes LODs for some pieces of a kit. */
  async buildChains(kit: Kit, pieces: readonly Piece[], options: ChainOptions): Promise<void> {
    if (pieces.length === 0) return;
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
        if (piece && canonicalJson(plainJson(piece.steps)) !== canonicalJson(plainJson(steps)))
          operations.push(setRecordField('piece', piece, 'steps', plainJson(steps)));
      }
      if (mesh !== kit.mesh)
        await this.edits.commit(
          pieces.length === 1 ? `build the LODs of ${pieces[0].name}` : `build the LODs of ${pieces.length} pieces`,
          operations,
        );
      const short = built.chains.filter(({ missingSteps }) => missingSteps > 0);
      const named = short.slice(0, 3).map(({ name, why }) => `${name} can’t get all ${options.steps} LODs: ${why}`);
      const more = short.length > named.length ? `; ${short.length - named.length} more fall short too` : '';
      this.done.set(
        `LODs of ${counted(built.chains.length, 'piece')} built${short.length > 0 ? `; ${named.join('; ')}${more}` : ''}.`,
      );
    });
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
