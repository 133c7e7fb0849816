import { Injectable, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  RECORDS_DOCUMENT,
  backFrom,
  canonicalJson,
  chainLike,
  counted,
  placeOfTaken,
  newKey,
  plainJson,
  type BuiltChain,
  type ChainOptions,
  type DroppedFile,
  type Kit,
  type Operation,
  type Piece,
  type ReadPieces,
  type TakenPiece,
} from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { Compute } from '../compute/compute';
import { WorkInHand } from '../compute/work-in-hand';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { create, newId, remove, setRecordField } from '../edits/operations';

/** Files that were read and wait to be taken into a kit. */
export interface WaitingPieces {
  readonly files: readonly DroppedFile[];
  readonly unitMetres: number;
  readonly isZUp: boolean;
  readonly read: ReadPieces;
  /** The piece that a single one of them is to replace, whatever it is called. */
  readonly replaces: Piece | undefined;
}

/** What becomes of read pieces, and where they go. */
export interface TakeIn {
  /** Null for a new kit. */
  readonly kit: string | null;
  /** Name of the new kit. */
  readonly name: string;
  readonly taken: readonly TakenPiece[];
  /** Whether meshes are moved to where those lay that they replace. */
  readonly keepsOrigins: boolean;
}

/** Reads files into kits and makes LODs. It goes on while one works elsewhere. */
@Injectable({ providedIn: 'root' })
export class KitWork {
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly edits = inject(EditLog);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly work = new WorkInHand();

  /** Tells how far it is. */
  readonly say = this.work.say;
  readonly progress = this.work.progress;
  readonly failure = this.work.failure;
  /** What was done last, in words. */
  readonly done = signal('');
  readonly waiting = signal<WaitingPieces | undefined>(undefined);

  /**
   * Reads dropped files in the worker; they then wait to be taken in.
   * @param replaces the piece whose place a single one of them is to take
   */
  async read(files: readonly DroppedFile[], unitMetres: number, isZUp: boolean, replaces?: Piece): Promise<void> {
    this.done.set('');
    const read = await this.guard(() =>
      this.work.keep(this.compute.run('read-pieces', { files, unitMetres, isZUp }, { onProgress: this.work.say })),
    );
    if (read) this.waiting.set({ files, unitMetres, isZUp, read, replaces });
  }

  /**
   * Takes what waits into a kit: its GLB goes to the server, then one edit names it. Pieces that had LODs get as many anew.
   * @returns id of the kit; undefined when it was left or failed
   */
  async takeIn({ kit: kitId, name: kitName, taken, keepsOrigins }: TakeIn): Promise<string | undefined> {
    const waiting = this.waiting();
    if (!waiting?.read.glb) return undefined;
    const { glb } = waiting.read;
    const kit = kitId === null ? undefined : this.tables().kit[kitId];
    return this.guard(async () => {
      const before = kit ? new Uint8Array(await this.api.asset(kit.mesh)) : null;
      const pieces = taken.map(({ read, as, moved }) => ({
        name: read.name,
        as,
        ...(moved && keepsOrigins ? { move: backFrom(moved) } : {}),
      }));
      const merged = await this.work.keep(
        this.compute.run('add-to-kit', { kit: before, added: glb, pieces }, { onProgress: this.work.say }),
      );
      const built = await this.rebuilt(merged, taken);
      const mesh = await this.upload(built.glb);
      const id = kit?.id ?? newId();
      const operations: Operation[] = [
        kit
          ? setRecordField('kit', kit, 'mesh', mesh)
          : create(RECORDS_DOCUMENT, 'kit', { id, name: kitName, key: newKey(this.tables(), 'kit', kitName), mesh }),
      ];
      for (const one of taken) {
        const steps = built.chains.find(({ name }) => name === one.as)?.steps ?? [one.read.step];
        const { bounds, movedOrigin } = placeOfTaken(one, keepsOrigins);
        const { replaced } = one;
        if (!replaced) {
          operations.push(create(RECORDS_DOCUMENT, 'piece', { id: newId(), kit: id, name: one.as, bounds, steps }));
          continue;
        }
        operations.push(
          setRecordField('piece', replaced, 'bounds', plainJson(bounds)),
          setRecordField('piece', replaced, 'steps', plainJson(steps)),
        );
        if (movedOrigin || replaced.movedOrigin)
          operations.push(setRecordField('piece', replaced, 'movedOrigin', plainJson(movedOrigin ?? null)));
      }
      await this.edits.commit(`import ${counted(taken.length, 'piece')} into ${kit?.name ?? kitName}`, operations);
      this.waiting.set(undefined);
      this.done.set(
        `${counted(taken.length, 'piece was', 'pieces were')} imported into ${kit?.name ?? kitName}${shortText(built.chains)}.`,
      );
      return id;
    });
  }

  /** Makes LODs for pieces that take the place of some that had them. */
  private async rebuilt(
    merged: Uint8Array,
    taken: readonly TakenPiece[],
  ): Promise<{ readonly glb: Uint8Array; readonly chains: readonly BuiltChain[] }> {
    let glb = merged;
    const chains: BuiltChain[] = [];
    for (const { as, replaced } of taken) {
      const options = replaced && chainLike(replaced.steps);
      if (!options) continue;
      const built = await this.work.keep(
        this.compute.run('build-chains', { glb, names: [as], options }, { onProgress: this.work.say }),
      );
      glb = built.glb;
      chains.push(...built.chains);
    }
    return { glb, chains };
  }

  /** Takes a piece out of a kit. @param operations what becomes of its placements, in the same edit */
  async removePiece(kit: Kit, piece: Piece, operations: readonly Operation[]): Promise<void> {
    this.done.set('');
    await this.guard(async () => {
      const glb = new Uint8Array(await this.api.asset(kit.mesh));
      const without = await this.work.keep(
        this.compute.run('remove-piece', { kit: glb, name: piece.name }, { onProgress: this.work.say }),
      );
      await this.edits.commit(`delete the piece ${piece.name}`, [
        ...operations,
        remove(RECORDS_DOCUMENT, 'piece', piece),
        setRecordField('kit', kit, 'mesh', await this.upload(without)),
      ]);
      this.done.set(`${piece.name} was deleted.`);
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
      this.done.set(`LODs of ${counted(built.chains.length, 'piece')} built${shortText(built.chains)}.`);
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

  /** Does work whose progress and failure are shown; undefined when it failed or was cancelled. */
  guard<T>(work: () => Promise<T>): Promise<T | undefined> {
    return this.work.do('starting', work);
  }
}

/** What of some LODs could not be made, to follow what was: '; crate can’t get all 5 LODs: …'. */
function shortText(chains: readonly BuiltChain[]): string {
  const short = chains.filter(({ missingSteps }) => missingSteps > 0);
  const named = short
    .slice(0, 3)
    .map(
      ({ name, steps, missingSteps, why }) => `; ${name} can’t get all ${steps.length - 1 + missingSteps} LODs: ${why}`,
    );
  return named.join('') + (short.length > named.length ? `; ${short.length - named.length} more fall short too` : '');
}
