import { turnQuaternion } from '../geometry/turn-quaternion';
import type { LevelContent } from '../layout/level-content';
import { squaresOfRow } from '../layout/tiles/square-text';
import type { Json } from '../model/json';
import type { Kit, Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import { chunkName, type Chunk } from './chunks';
import { kitPackPath } from './pack-kit';
import { placementAt } from '../items/placement/columns';
import { ownValues } from '../layout/placed-json';

/** What a level's file tells beside its content. */
export interface DescribedLevel {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Kit>>;
  /** Number in order of play from 1; null for trial and tool levels. */
  readonly number: number | null;
  /** Names of the sets that it stands in, from the top. */
  readonly sets: readonly string[];
  readonly chunks: readonly { readonly chunk: Chunk; readonly hasGeometry: boolean }[];
  /** Its masks as they are described, in order. */
  readonly masks: readonly Json[];
  readonly hasCells: boolean;
}

/** Folder of a level's files; the file that describes it lies beside. */
export function levelFolder({ level }: LevelContent): string {
  return `levels/${level.key}`;
}

/** A level's file, without its placements: those are `placedJson`, in the lists of the chunks. */
export function describeLevel(described: DescribedLevel, placed: (placement: Placement) => Json): Json {
  const { content } = described;
  const { level, strata } = content;
  const folder = levelFolder(content);
  const markers = strata.flatMap(({ content: items }) => items.marker);
  return {
    format: 'stravel-pack-level',
    version: 1,
    id: level.id,
    key: level.key,
    name: level.name,
    number: described.number,
    sets: [...described.sets],
    purpose: level.purpose,
    code: level.code,
    values: level.values as Json,
    openSky: level.openSky,
    markers: markers.map(({ id, kind, position, turn, entry, values }) => ({
      id,
      kind,
      translation: [...position],
      rotation: turnQuaternion([turn, 0, 0]),
      ...(entry ? { entry } : {}),
      ...ownValues(values),
    })),
    ...happenings(content),
    ...(described.masks.length > 0 ? { masks: [...described.masks] } : {}),
    chunks: described.chunks.map((one) => describeChunk(one, described, placed)),
    sight: `${folder}/sight.json`,
    cells: described.hasCells ? `${folder}/cells.json` : null,
  };
}

function describeChunk(
  { chunk, hasGeometry }: DescribedLevel['chunks'][number],
  { content, kits, pieces }: DescribedLevel,
  placed: (placement: Placement) => Json,
): Json {
  return {
    cell: chunk.cell === '' ? null : chunk.cell,
    geometry: hasGeometry ? `${levelFolder(content)}/${chunkName(chunk)}.glb` : null,
    kits: [...new Set(chunk.placements.map(({ of, i }) => kitPackPath(kits[pieces[of.pieces[i]].kit])))]
      .sort()
      .map((path) => `${path}.json`),
    placements: chunk.placements.map(({ of, i }) => placed(placementAt(of, i))),
  };
}

/** What happens in a level and where one goes: volumes, links, paths and tile floors. Lists that are empty are left out. */
function happenings({ strata }: LevelContent): Record<string, Json> {
  const all = <T>(of: (content: LevelContent['strata'][number]['content']) => readonly T[]): readonly T[] =>
    strata.flatMap(({ content }) => of(content));
  const lists: Record<string, Json[]> = {
    volumes: all(({ volume }) => volume).map(({ id, name, kind, position, turn, shape, values }) => ({
      id,
      name,
      kind,
      translation: [...position],
      rotation: turnQuaternion(turn),
      shape: shape as unknown as Json,
      ...ownValues(values),
    })),
    links: all(({ link }) => link) as unknown as Json[],
    paths: all(({ path }) => path).map(({ id, name, form, closed, knots }) => ({
      id,
      name,
      form,
      closed,
      knots: knots as unknown as Json,
    })),
    tileFloors: all(({ tileFloor }) => tileFloor).map(
      ({ id, name, position, squareMetres, columns, rows, squares }) => ({
        id,
        name,
        position: [...position],
        squareMetres,
        squares: Array.from({ length: rows }, (_unused, row) => squaresOfRow(squares[String(row)], columns)),
      }),
    ),
  };
  return Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length > 0));
}
