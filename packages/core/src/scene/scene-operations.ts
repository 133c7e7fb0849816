import type { Operation } from '../document/operation';
import { FreeNames } from '../detail/piece-name';
import { plainJson } from '../json/plain-json';
import { sha256Hex } from '../json/sha256';
import { counted } from '../counted';
import { MAX_OPERATIONS } from '../document/edit-request';
import { CoreError } from '../errors';
import type { Editable, EditableKind, RecordTables } from '../model/records';
import { RECORDS_DOCUMENT } from '../model/records';
import type { Group } from '../model/group';
import type { Kit, Piece } from '../model/kit';
import type { Level, StackEntry } from '../model/level';
import type { Marker } from '../model/marker';
import type { Placement } from '../model/placement';
import type { Stratum } from '../model/stratum';
import { newKey } from '../sets/keys';
import type { ReadScene } from './read-scene-files';

/** Longest name of a group. */
const MAX_NAME_LETTERS = 100;
/** Letters of the hash by which objects are named. */
const ID_LETTERS = 20;

export interface SceneOperationsInput {
  readonly scene: ReadScene;
  readonly tables: Pick<RecordTables, 'kit' | 'level' | 'piece' | 'stratum'>;
  readonly level: Level;
  /** Whether it is made with it. */
  readonly isNewLevel?: boolean;
  /** SHA-256 of the GLB of its pieces, as an asset is named; null where no piece came through. */
  readonly mesh: string | null;
  /** Ids of the kit and the stratum that are made. */
  readonly kitId: string;
  readonly stratumId: string;
}

/**
 * What lays a scene into a level, as one edit: a kit of its pieces, and a stratum of the level with groups, placements and markers. An object is named by its
 * stratum and the path of its node, so that equal scenes give equal ids.
 * @throws CoreError 'IMPORT_EMPTY' where nothing came through, 'IMPORT_LARGE' where it is more than an edit takes
 */
export function sceneOperations(input: SceneOperationsInput): Operation[] {
  const { scene, tables, level, isNewLevel = false, mesh, kitId, stratumId } = input;
  const { plan, read } = scene;
  if (plan.placements.length === 0 && plan.markers.length === 0)
    throw new CoreError('IMPORT_EMPTY', `import: ${scene.name} has no mesh and no marker that could be placed`);
  const idOf = (path: string): string =>
    `${stratumId}-${sha256Hex(new TextEncoder().encode(path)).slice(0, ID_LETTERS)}`;
  const operations: Operation[] = [];
  const make = (document: string, kind: EditableKind, record: Editable): void =>
    void operations.push({
      document,
      kind,
      id: record.id,
      field: null,
      before: null,
      after: plainJson<Editable>(record),
    });
  const pieceIds = new Map<string, string>();
  if (mesh !== null) {
    const name = new FreeNames(Object.values(tables.kit).map((kit) => kit.name)).take(scene.name || 'Scene');
    // A new level has its key before the kit, which takes another.
    const taken = { ...tables, level: { ...tables.level, [level.id]: level } };
    const kit: Kit = { id: kitId, name, key: newKey(taken, 'kit', name), mesh };
    make(RECORDS_DOCUMENT, 'kit', kit);
    read.pieces.forEach(({ name: piece, bounds, step }, i) => {
      const id = `${kitId}-${i + 1}`;
      pieceIds.set(piece, id);
      const record: Piece = { id, kit: kitId, name: piece, bounds, steps: [step] };
      make(RECORDS_DOCUMENT, 'piece', record);
    });
  }
  const own = level.strata.flatMap(({ stratum }) => tables.stratum[stratum]?.name ?? []);
  const stratum: Stratum = {
    id: stratumId,
    name: new FreeNames(own).take(scene.name || 'Scene'),
    role: 'structure',
    owner: level.id,
  };
  make(RECORDS_DOCUMENT, 'stratum', stratum);
  const strata: readonly StackEntry[] = [...level.strata, { stratum: stratumId, switchedOff: false }];
  if (isNewLevel) make(RECORDS_DOCUMENT, 'level', { ...level, strata });
  else
    operations.push({
      document: RECORDS_DOCUMENT,
      kind: 'level',
      id: level.id,
      field: 'strata',
      before: plainJson(level.strata),
      after: plainJson<readonly StackEntry[]>(strata),
    });
  const groupId = (group: number): string | undefined => (group < 0 ? undefined : idOf(plan.groups[group].path));
  const inGroup = (group: number): { readonly group?: string } => {
    const id = groupId(group);
    return id === undefined ? {} : { group: id };
  };
  for (const { path, name, parent } of plan.groups) {
    const group: Group = {
      id: idOf(path),
      name: name.slice(0, MAX_NAME_LETTERS),
      parent: groupId(parent) ?? null,
      category: '',
      colour: 'none',
      switchedOff: false,
      guard: '',
      aside: null,
    };
    make(stratumId, 'group', group);
  }
  for (const { path, piece, position, turn, scale, group } of plan.placements) {
    const id = pieceIds.get(plan.pieces[piece].mesh.name) ?? '';
    const placement: Placement = { id: idOf(path), piece: id, position, turn, scale, ...inGroup(group) };
    make(stratumId, 'placement', placement);
  }
  for (const { path, kind, position, turn, group } of plan.markers) {
    const marker: Marker = { id: idOf(path), kind, position, turn, ...inGroup(group) };
    make(stratumId, 'marker', marker);
  }
  if (operations.length > MAX_OPERATIONS)
    throw new CoreError(
      'IMPORT_LARGE',
      `import: ${counted(operations.length, 'change')} are more than one edit takes (${MAX_OPERATIONS}); split the scene`,
    );
  return operations;
}
