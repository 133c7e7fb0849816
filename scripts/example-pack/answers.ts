import {
  bakeSight,
  createRunContext,
  isInVolume,
  levelContent,
  levelSightInput,
  placementsOf,
  playLevel,
  pocketAt,
  startOfPlay,
  stepNodeName,
  switchDistances,
  turnQuaternion,
  typeCode,
  unlockModel,
  DEFAULT_VIEW,
  type CollectionContent,
  type LevelContent,
  type Piece,
  type Vector3,
} from '@stravel/core';

/** Reads a JSON file of the pack. */
export type ReadJson = (path: string) => unknown;

/** What a reader of the example pack has to find; docs/formats/example-pack/README.md tells of it. */
export interface Answers {
  readonly format: 'stravel-pack-answers';
  readonly version: 1;
  readonly sight: readonly {
    readonly level: string;
    readonly point: Vector3;
    /** Number of the pocket, −1 where none has the point. */
    readonly pocket: number;
    /** Ids of what is drawn, sorted. */
    readonly objects: readonly string[];
  }[];
  readonly lods: readonly {
    readonly piece: string;
    readonly distance: number;
    readonly scale: number;
    readonly node: string;
  }[];
  readonly walk: {
    readonly level: string;
    readonly steps: readonly {
      readonly at: Vector3;
      /** Names of chunks, and paths of files that several chunks need, sorted. */
      readonly loads: readonly string[];
      readonly unloads: readonly string[];
    }[];
  };
  readonly progress: readonly {
    readonly play?: string;
    readonly collected?: Readonly<Record<string, number>>;
    readonly code?: string;
    readonly unlocked: readonly string[];
    readonly values: Readonly<Record<string, number>>;
  }[];
  readonly placements: readonly {
    readonly level: string;
    readonly id: string;
    readonly piece: string;
    readonly translation: Vector3;
    readonly rotation: readonly number[];
    readonly scale: Vector3;
  }[];
}

/** Every so many placements of a level stand among the answers. */
const EACH = 12;

/** The answers, from the collection itself; of the pack only what it is cut into is read. */
export function answersOf(content: CollectionContent, read: ReadJson): Answers {
  return {
    format: 'stravel-pack-answers',
    version: 1,
    sight: [...sightOf(content, 'cistern', read), ...sightOf(content, 'brine-vault', read)],
    lods: Object.values(content.records.piece).flatMap(lodsOf),
    walk: walkOf(content, 'long-jetty', read),
    progress: progressOf(content),
    placements: Object.keys(content.records.level).flatMap((id) => placementsOfLevel(content, id)),
  };
}

function contentOf({ records, strata }: CollectionContent, id: string): LevelContent {
  const level = records.level[id];
  const stack = level.strata.map(({ stratum }) => ({
    stratum: records.stratum[stratum],
    content: strata.get(stratum) ?? missing(stratum),
  }));
  return levelContent(level, stack, strata);
}

function sightOf(content: CollectionContent, level: string, read: ReadJson): Answers['sight'] {
  const { pockets } = bakeSight(levelSightInput(contentOf(content, level)), {}, createRunContext());
  const packed = read(`levels/${level}/sight.json`) as {
    objects: string[];
    pockets: { reached: boolean; visible: number[]; objects: number[] }[];
  };
  const points: Vector3[] = [];
  for (let x = -17.3; x < 18; x += 4.9) for (let z = -6.1; z < 6; z += 3.1) points.push([round(x), 1.6, round(z)]);
  return points.map((point) => {
    const pocket = pocketAt(pockets, point);
    const isAll = pocket < 0 || !packed.pockets[pocket].reached;
    const seen = isAll ? packed.pockets.map((_one, i) => i) : packed.pockets[pocket].visible;
    const numbers = isAll ? packed.objects.map((_one, i) => i) : seen.flatMap((one) => packed.pockets[one].objects);
    return { level, point, pocket, objects: [...new Set(numbers)].map((one) => packed.objects[one]).sort() };
  });
}

function lodsOf({ id, name, steps }: Piece): Answers['lods'] {
  return [0.5, 2].flatMap((scale) => {
    const distances = switchDistances(steps, DEFAULT_VIEW, scale);
    const asked = distances.flatMap((from) => [from * 0.99, from * 1.01]).concat(1e6);
    return asked.map((distance) => {
      const step = distances.reduce((best, from, k) => (distance >= from ? k : best), 0);
      return { piece: id, distance, scale, node: stepNodeName(name, step) };
    });
  });
}

/** Walks from one end to the other and back by half metres, into the house that loads the far end, and out again. */
function walkOf(content: CollectionContent, level: string, read: ReadJson): Answers['walk'] {
  const grid = content.records.cellGrid[level];
  const { cells } = read(`levels/${level}/cells.json`) as { cells: { cell: string; min: number[]; max: number[] }[] };
  const { chunks } = read(`levels/${level}.json`) as {
    chunks: { cell: string | null; kits: string[]; meshes: string[] }[];
  };
  const volumes = contentOf(content, level).strata.flatMap((one) => one.content.volume);
  const needs = (cell: string | null): string[] => {
    const chunk = chunks.find((one) => one.cell === cell);
    return chunk ? [...chunk.kits, ...chunk.meshes] : [];
  };
  const there = new Set<string>();
  let loaded: string[] = [];
  const steps: { at: Vector3; loads: string[]; unloads: string[] }[] = [];
  const path = [
    ...Array.from({ length: 401 }, (_one, i) => i / 2),
    ...Array.from({ length: 401 }, (_one, i) => 200 - i / 2),
  ];
  for (const x of path) {
    const at: Vector3 = [x, 0.2, 0];
    const held = new Set(
      (grid.volumeRules ?? []).flatMap((rule) =>
        volumes.some((volume) => volume.id === rule.volume && isInVolume(volume, at)) ? rule.cells : [],
      ),
    );
    for (const { cell, min, max } of cells) {
      const [dx, dz] = [0, 1].map((k) => Math.max(min[k] - at[k * 2], 0, at[k * 2] - max[k]));
      const metres = Math.hypot(dx, dz);
      if (metres > grid.dropMetres && !held.has(cell)) there.delete(cell);
      if (metres <= grid.loadMetres || held.has(cell)) there.add(cell);
    }
    const now = [
      ...new Set(['resident', ...needs(null), ...[...there].flatMap((cell) => [cell, ...needs(cell)])]),
    ].sort();
    const loads = now.filter((one) => !loaded.includes(one));
    const unloads = loaded.filter((one) => !now.includes(one));
    if (loads.length + unloads.length > 0) steps.push({ at, loads, unloads });
    loaded = now;
  }
  return { level, steps };
}

function progressOf({ records }: CollectionContent): Answers['progress'] {
  const model = unlockModel(records);
  let state = startOfPlay(model);
  const steps: Answers['progress'][number][] = [];
  const tell = (step: Partial<Answers['progress'][number]>): void => {
    const unlocked = model.levels.filter(({ id }) => state.open.has(id)).map(({ id }) => records.level[id].key);
    steps.push({ ...step, unlocked, values: Object.fromEntries(state.values) });
  };
  const play = (level: string, collected: Readonly<Record<string, number>>): void => {
    state = playLevel(model, state, { level, collected });
    tell({ play: level, collected });
  };
  tell({});
  play('cistern', { shards: 4 });
  play('long-jetty', { shards: 3, heat: -2 });
  play('long-jetty', { heat: 3 });
  state = typeCode(model, state, 'brine-vault');
  tell({ code: 'BRINE' });
  play('brine-vault', { heat: 1 });
  return steps;
}

function placementsOfLevel(content: CollectionContent, level: string): Answers['placements'] {
  return contentOf(content, level).strata.flatMap((one) => {
    const { count, ids, pieces, numbers } = placementsOf(one);
    return Array.from({ length: count }, (_unused, i) => i)
      .filter((i) => i % EACH === 0)
      .map((i) => {
        const at = (k: number): number => numbers[i * 9 + k];
        return {
          level,
          id: ids[i],
          piece: pieces[i],
          translation: [at(0), at(1), at(2)] as const,
          rotation: turnQuaternion([at(3), at(4), at(5)]),
          scale: [at(6), at(7), at(8)] as const,
        };
      });
  });
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}

function missing(stratum: string): never {
  throw new Error(`no stratum ${stratum}`);
}
