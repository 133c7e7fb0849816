import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  COLLISIONS,
  DEFAULT_COLLISION_PATTERN,
  RECORDS_DOCUMENT,
  backFrom,
  canonicalJson,
  chainLike,
  collisionOfTaken,
  counted,
  placeOfTaken,
  newKey,
  plainJson,
  type BuiltChain,
  type ChainOptions,
  type CollisionShape,
  type DroppedFile,
  type Kit,
  type MadeCollision,
  type Operation,
  type Piece,
  type PieceCollision,
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
  readonly collisionPattern: string;
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

  /** How meshes are named that are collisions of others. */
  readonly collisionPattern = computed(
    () => Object.values(this.tables().collection).at(0)?.collisionPattern ?? DEFAULT_COLLISION_PATTERN,
  );

  /**
   * Reads dropped files in the worker; they then wait to be taken in.
   * @param replaces the piece whose place a single one of them is to take
   */
  async read(files: readonly DroppedFile[], unitMetres: number, isZUp: boolean, replaces?: Piece): Promise<void> {
    this.done.set('');
    const collisionPattern = this.collisionPattern();
    const input = { files, unitMetres, isZUp, collisionPattern };
    const read = await this.guard(() =>
      this.work.keep(this.compute.run('read-pieces', input, { onProgress: this.work.say })),
    );
    if (read) this.waiting.set({ ...input, read, replaces });
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
      const pieces = taken.map((one) => {
        const collision = collisionOfTaken(one);
        return {
          name: one.read.name,
          as: one.as,
          ...(one.moved && keepsOrigins ? { move: backFrom(one.moved) } : {}),
          ...(collision ? { collision } : {}),
        };
      });
      const added = await this.work.keep(
        this.compute.run('add-to-kit', { kit: before, added: glb, pieces }, { onProgress: this.work.say }),
      );
      const built = await this.rebuilt(added.glb, taken);
      const collisions = new Map(added.collisions.map(({ name, collision }) => [name, collision]));
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
        const collision = collisions.get(one.as) ?? null;
        if (!replaced) {
          const piece = { id: newId(), kit: id, name: one.as, bounds, steps, ...(collision ? { collision } : {}) };
          operations.push(create(RECORDS_DOCUMENT, 'piece', piece));
          continue;
        }
        operations.push(
          setRecordField('piece', replaced, 'bounds', plainJson(bounds)),
          setRecordField('piece', replaced, 'steps', plainJson(steps)),
        );
        if (movedOrigin || replaced.movedOrigin)
          operations.push(setRecordField('piece', replaced, 'movedOrigin', plainJson(movedOrigin ?? null)));
        operations.push(...changedCollision(replaced, collision));
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
    glb: Uint8Array,
    taken: readonly TakenPiece[],
  ): Promise<{ readonly glb: Uint8Array; readonly chains: readonly BuiltChain[] }> {
    const optionsOf = new Map(
      taken.flatMap(({ as, replaced }) => {
        const options = replaced && chainLike(replaced.steps);
        return options ? [[as, options] as const] : [];
      }),
    );
    if (optionsOf.size === 0) return { glb, chains: [] };
    const input = { glb, names: [...optionsOf.keys()], optionsOf };
    return this.work.keep(this.compute.run('build-chains', input, { onProgress: this.work.say }));
  }

  /** Gives pieces of a kit their collision, or takes it from them. @param shape null for none */
  async setCollisions(kit: Kit, pieces: readonly Piece[], shape: CollisionShape | null): Promise<void> {
    if (pieces.length === 0) return;
    this.done.set('');
    await this.guard(async () => {
      const glb = new Uint8Array(await this.api.asset(kit.mesh));
      const wanted = pieces.map(({ name, bounds }) => ({ name, bounds, shape }));
      const made = await this.work.keep(
        this.compute.run('set-collisions', { kit: glb, pieces: wanted }, { onProgress: this.work.say }),
      );
      const mesh = await this.upload(made.glb);
      const operations = made.collisions.flatMap(({ name, collision }) => {
        const piece = pieces.find((one) => one.name === name);
        return piece ? changedCollision(piece, collision) : [];
      });
      if (mesh !== kit.mesh) operations.push(setRecordField('kit', kit, 'mesh', mesh));
      const what = pieces.length === 1 ? pieces[0].name : counted(pieces.length, 'piece');
      if (operations.length > 0) await this.edits.commit(`set the collision of ${what}`, operations);
      this.done.set(`Collision of ${what} set${otherShapesText(made.collisions)}.`);
    });
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
  async renamePiece(piece: Piece, name: string): Promise<void> {
    await this.renamePieces([{ piece, to: name }], `rename ${piece.name}`);
  }

  /** The same for several, of several kits. @param operations what else changes in the same edit */
  async renamePieces(
    renames: readonly { readonly piece: Piece; readonly to: string }[],
    label: string,
    operations: readonly Operation[] = [],
  ): Promise<boolean> {
    this.done.set('');
    const done = await this.guard(async () => {
      const all = [...operations];
      for (const id of new Set(renames.map(({ piece }) => piece.kit))) {
        const kit = this.tables().kit[id];
        const own = renames.filter(({ piece }) => piece.kit === id);
        const glb = new Uint8Array(await this.api.asset(kit.mesh));
        const names = own.map(({ piece, to }) => ({ from: piece.name, to }));
        const renamed = await this.work.keep(
          this.compute.run('rename-pieces', { kit: glb, names }, { onProgress: this.work.say }),
        );
        all.push(setRecordField('kit', kit, 'mesh', await this.upload(renamed)));
        for (const { piece, to } of own) all.push(setRecordField('piece', piece, 'name', to));
      }
      await this.edits.commit(label, all);
      if (renames.length > 0)
        this.done.set(
          renames.length === 1
            ? `${renames[0].piece.name} is called ${renames[0].to} now.`
            : `${counted(renames.length, 'piece was', 'pieces were')} renamed.`,
        );
      return true;
    });
    return done === true;
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

/** What changes in the record of a piece that gets a collision, or has none any more. */
function changedCollision(piece: Piece, collision: PieceCollision | null): Operation[] {
  const before = piece.collision ?? null;
  if (canonicalJson(plainJson(before)) === canonicalJson(plainJson(collision))) return [];
  return [setRecordField('piece', piece, 'collision', plainJson(collision))];
}

/** What could not be of the shape that was asked for, to follow what was: '; sheet is flat, so it has Mesh'. */
function otherShapesText(made: readonly MadeCollision[]): string {
  const other = made.filter(({ why }) => why !== '');
  const named = other
    .slice(0, 3)
    .map(
      ({ name, why, collision }) =>
        `; ${name} ${why}, so it has ${collision ? COLLISIONS[collision.shape].name : 'none'}`,
    );
  return named.join('') + (other.length > named.length ? `; so do ${other.length - named.length} more` : '');
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
