import type { CollisionShape, Piece } from '../model/kit';
import type { Vector3 } from '../model/vector';
import { movedBox, movedOrigin } from './piece-origin';
import { FreeNames } from './piece-name';
import type { ReadPiece } from './sound-pieces';

/** What becomes of a piece that was read. */
export interface TakenPiece {
  readonly read: ReadPiece;
  /** Its name in the kit. */
  readonly as: string;
  /** The piece of the kit whose place it takes. */
  readonly replaced: Piece | undefined;
  /** How far it lies beside where that one lay about its origin, metres. */
  readonly moved: Vector3 | undefined;
}

/**
 * What becomes of the pieces that were read when they go into a kit.
 * @param known pieces that the kit has
 * @param choices id of the known piece that one replaces, by its name; null where it is to be a new one. Without a
 * choice it replaces the piece of its name
 */
export function takenPieces(
  read: readonly ReadPiece[],
  known: readonly Piece[],
  choices: ReadonlyMap<string, string | null>,
): TakenPiece[] {
  const names = new FreeNames(known.map(({ name }) => name));
  const byId = new Map(known.map((piece) => [piece.id, piece]));
  const byName = new Map(known.map((piece) => [piece.name, piece]));
  return read.map((one) => {
    const choice = choices.get(one.name);
    const replaced = choice === undefined ? byName.get(one.name) : byId.get(choice ?? '');
    if (replaced) return { read: one, as: replaced.name, replaced, moved: movedOrigin(replaced.bounds, one.bounds) };
    return { read: one, as: names.take(one.name), replaced: undefined, moved: undefined };
  });
}

/** The first piece that two others are to become; undefined where there is none. */
export function replacedTwice(taken: readonly TakenPiece[]): Piece | undefined {
  const seen = new Set<Piece>();
  return taken.find(({ replaced }) => replaced && (seen.has(replaced) || !seen.add(replaced)))?.replaced;
}

/** Where a piece lies once it is taken in, as its record has it. @param keepsOrigin whether its mesh is put back to where the other lay */
export function placeOfTaken(
  { read, moved, replaced }: TakenPiece,
  keepsOrigin: boolean,
): Pick<Piece, 'bounds' | 'movedOrigin'> {
  const back = moved && keepsOrigin ? backFrom(moved) : undefined;
  // What was found before and not put right adds up.
  const before = replaced?.movedOrigin ?? [0, 0, 0];
  const away = moved && !keepsOrigin ? moved : ([0, 0, 0] as const);
  const sum: Vector3 = [before[0] + away[0], before[1] + away[1], before[2] + away[2]];
  return {
    bounds: back ? movedBox(read.bounds, back) : read.bounds,
    movedOrigin: movedOrigin({ min: [0, 0, 0], max: [0, 0, 0] }, { min: sum, max: sum }) ?? null,
  };
}

/** The shape of collision that a piece gets when it is taken in: the mesh that came with it, else what the one had that it replaces. */
export function collisionOfTaken({ read, replaced }: TakenPiece): CollisionShape | undefined {
  return read.collisionTriangles === undefined ? replaced?.collision?.shape : 'own';
}

/** What puts a mesh back that has moved. */
export const backFrom = ([x, y, z]: Vector3): Vector3 => [-x, -y, -z];
