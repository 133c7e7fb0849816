import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  BakeCache,
  bringBake,
  createTasks,
  DEFAULT_MOVEMENT,
  DEFAULT_VIEW,
  ITEM_KINDS,
  archiveCollection,
  blockSurface,
  budgetFindings,
  checkPack,
  createRunContext,
  fieldFault,
  fieldsOf,
  inspectKit,
  layoutFindings,
  openingsThatDoNotFit,
  plainArchive,
  levelContent,
  linkLookup,
  kitLoad,
  recordFaults,
  restoreCollection,
  setFindings,
  valueOf,
  type CollectionContent,
  type FiguresSummary,
  type Level,
  type LevelContent,
  type LevelScene,
  type SightResult,
  meshLoads,
  targetOf,
  type KitLoad,
} from '@stravel/core';
import { cinderbrine } from '../../../demo/cinderbrine';

const cache = new BakeCache(64e6);
const TASKS = createTasks(cache);

let demo: CollectionContent;
const baked = new Map<string, { sight: SightResult; figures: FiguresSummary }>();

const levelNamed = (name: string): Level =>
  Object.values(demo.records.level).find((level) => level.name === name) as Level;
const contentOf = (level: Level): LevelContent =>
  levelContent(
    level,
    level.strata.map(({ stratum }) => ({
      stratum: demo.records.stratum[stratum],
      content: demo.strata.get(stratum) as never,
    })),
    demo.strata,
  );

const sceneOf = (level: Level): LevelScene => {
  const { piece: pieces, kit: kits, device: devices } = demo.records;
  const content = contentOf(level);
  return { content, pieces, kits, devices, view: DEFAULT_VIEW, kitLoads: {}, grid: null, rehearsals: [] };
};

/** Bakes a level of the demo once for all tests. */
function bake(name: string): { sight: SightResult; figures: FiguresSummary } {
  let known = baked.get(name);
  if (!known) {
    const scene = sceneOf(levelNamed(name));
    const subject = scene.content.level.id;
    const { result: sight } = bringBake(scene, { kind: 'sight', subject }, cache, createRunContext());
    const { result: figures } = bringBake(scene, { kind: 'figures', subject }, cache, createRunContext());
    baked.set(name, (known = { sight, figures }));
  }
  return known;
}

beforeAll(async () => {
  demo = await cinderbrine();
});

describe('the demo collection', () => {
  it('has three Parts of three Chapters, 24 play levels, three for trial and one tool', () => {
    const sets = Object.values(demo.records.set);
    const parts = sets.filter(({ parent, name }) => parent === null && /^The /.test(name));
    expect(parts).toHaveLength(3);
    for (const { id } of parts) expect(sets.filter(({ parent }) => parent === id)).toHaveLength(3);
    const purposes = Object.values(demo.records.level).map(({ purpose }) => purpose);
    expect(['play', 'test', 'tool'].map((purpose) => purposes.filter((one) => one === purpose).length)).toEqual([
      24, 3, 1,
    ]);
    expect(demo.records.collection['collection'].ranks).toEqual(['Part', 'Chapter']);
  });

  it('fills every field of every play level with a value of its type', () => {
    const fields = fieldsOf(demo.records, null);
    const links = linkLookup(demo.records);
    expect(fields.map(({ type }) => type).sort()).toEqual(
      expect.arrayContaining(['choice', 'date', 'entry', 'number', 'text', 'yes/no']),
    );
    for (const level of Object.values(demo.records.level).filter(({ purpose }) => purpose === 'play')) {
      for (const field of fields.filter(({ figure }) => !figure)) {
        const value = valueOf(level, field);
        expect([level.id, field.key, value === null, fieldFault(field, value, links)]).toEqual([
          level.id,
          field.key,
          false,
          null,
        ]);
      }
    }
  });

  it('has eleven registers whose entries fit their fields and link to what is there', () => {
    expect(Object.keys(demo.records.register)).toHaveLength(11);
    const links = linkLookup(demo.records);
    for (const entry of Object.values(demo.records.entry)) {
      for (const field of fieldsOf(demo.records, entry.register))
        expect([entry.id, field.key, fieldFault(field, valueOf(entry, field), links)]).toEqual([
          entry.id,
          field.key,
          null,
        ]);
    }
    expect(Object.keys(demo.records.carriedValue)).toHaveLength(4);
    for (const { id, rules } of Object.values(demo.records.levelOrder)) {
      for (const rule of rules)
        if (rule.kind === 'after')
          for (const level of rule.levels) expect([id, demo.records.level[level]?.purpose]).toEqual([id, 'play']);
    }
  });

  it('has one base that eight levels share, and that three of them have otherwise', () => {
    const sharing = Object.values(demo.records.level).filter(({ strata }) =>
      strata.some(({ stratum }) => stratum === 'works-base'),
    );
    const lamps = sharing.map((level) =>
      contentOf(level)
        .strata[0].content.placement.map(({ id, position }) => `${id} ${position.join()}`)
        .join(),
    );
    // Five have it as it is shared.
    expect([sharing.length, new Set(lamps).size]).toEqual([8, 4]);
  });

  it('has items that all keep to their schemas, volumes of kinds that are there, and links that lead somewhere', () => {
    for (const content of demo.strata.values()) {
      for (const kind of ITEM_KINDS)
        for (const item of content[kind]) expect(recordFaults(kind, item as never)).toEqual([]);
      for (const { kind } of content.volume)
        expect(demo.records.register[demo.records.entry[kind].register].kindsOf).toBe('volume');
    }
    const hall = contentOf(levelNamed('Sorting Hall'));
    expect(hall.strata.flatMap(({ content }) => content.link)).toHaveLength(3);
    expect(hall.strata.flatMap(({ content }) => content.path).map(({ name }) => name)).toEqual(['sorting round']);
    expect(Object.values(demo.records.level).flatMap((level) => layoutFindings(contentOf(level)))).toEqual([]);
  });

  it('has a puzzle of three floors whose shortest way goes over all of them', () => {
    const floors = contentOf(levelNamed('Batch Floor')).strata.flatMap(({ content }) => content.tileFloor);
    const { legend, movement } = demo.records.collection['collection'];
    const found = TASKS['solve-tiles'](
      { floors, legend: legend ?? [], rules: movement ?? DEFAULT_MOVEMENT, stateLimit: 2000000 },
      createRunContext(),
    );
    expect([floors.length, found.answer]).toEqual([3, 'reached']);
    expect(new Set(found.way.map(({ floor }) => floor)).size).toBe(3);
  });

  it('has a room that is a picture: a body crosses it by narrow doors, and one chamber was never opened', () => {
    const { strata } = contentOf(levelNamed('Mould Room'));
    const [mask] = strata.flatMap(({ content }) => content.mask);
    const markers = strata.flatMap(({ content }) => content.marker);
    const at = (kind: string): [number, number] => {
      const { position } = markers.find((marker) => marker.kind === kind) ?? { position: [NaN, 0, NaN] };
      return [position[0], position[2]];
    };
    const survey = TASKS['survey-mask'](
      { mask, from: at('spawn'), to: [at('exit')], bodyMetres: 0.6, narrowMetres: 1.5 },
      createRunContext(),
    );
    expect(survey.ways.map(({ fault }) => fault)).toEqual(['']);
    expect(survey.regions.map(({ squareMetres, hasStart }) => [squareMetres > 40, hasStart])).toEqual([
      [true, true],
      [false, false],
    ]);
    expect(Math.min(...survey.narrows.map(({ widthMetres }) => widthMetres))).toBeCloseTo(0.8, 1);
  });

  it('is the same every time, and survives its own archive', async () => {
    const bytes = archiveCollection(demo);
    expect(Buffer.from(archiveCollection(await cinderbrine())).equals(Buffer.from(bytes))).toBe(true);
    expect(Buffer.from(archiveCollection(restoreCollection(bytes))).equals(Buffer.from(bytes))).toBe(true);
    // What a start reads was made by the build, of the same.
    const built = readFileSync(join(__dirname, '../dist/cinderbrine.stravel.zip'));
    expect(built.equals(Buffer.from(plainArchive(demo)))).toBe(true);
    expect(Buffer.from(archiveCollection(restoreCollection(built))).equals(Buffer.from(bytes))).toBe(true);
  }, 60000);

  it('has something to walk on, a spawn and an exit in every play level', () => {
    for (const level of Object.values(demo.records.level).filter(({ purpose }) => purpose === 'play')) {
      const { strata } = contentOf(level);
      const markers = strata.flatMap(({ content }) => content.marker.map(({ kind }) => kind));
      // A burrow makes its own markers.
      if (strata.some(({ content }) => content.recipe.length > 0)) continue;
      expect([level.name, markers.includes('spawn'), markers.includes('exit')]).toEqual([level.name, true, true]);
      const solid = strata.map(({ content }) => content.block.length + content.wall.length + content.tileFloor.length);
      expect([level.name, solid.reduce((sum, one) => sum + one, 0) > 0]).toEqual([level.name, true]);
    }
  });

  it('has walls whose openings lie in them', () => {
    const walls = [...demo.strata.values()].flatMap(({ wall }) => wall);
    expect(walls.length).toBeGreaterThan(30);
    expect(walls.filter((wall) => openingsThatDoNotFit(wall).length > 0)).toEqual([]);
  });

  it('has blocks that all enclose something, and placements of pieces that are there', () => {
    for (const [stratum, { block, placement }] of demo.strata) {
      for (const one of block) expect(blockSurface(one).faces.length).toBeGreaterThanOrEqual(4);
      for (const { piece, id } of placement)
        expect([stratum, id, demo.records.piece[piece]?.id]).toEqual([stratum, id, piece]);
    }
  });

  it('hides one code used twice, and one level that can never unlock', () => {
    const faults = setFindings(demo.records).map(({ code, subject }) => `${code} ${subject}`);
    expect(faults).toEqual([
      'CODE_USED_TWICE ash-gallery',
      'LEVEL_NEVER_OPENS wreck-reach',
      'THRESHOLD_TOO_HIGH wreck-reach.0',
    ]);
  });

  it.each([
    'Sorting Hall',
    "Gaffer's Stair",
    'Kiln Tunnels',
    'Cullet Yard',
    'Salt Road',
    'Potash Grotto',
    'Sump',
    'Low Water',
    'Furnace One',
    'Chimney Foot',
    'Tidal Gate',
    'Causeway',
    'Dune Quarry',
    'Brine Pans',
    'Wreck Reach',
    'Signal Mast',
    'Lehr Mouth',
    'Cooling Vault',
    'Ash Gallery',
    'Glass Heart',
    'Relight',
  ])(
    '%s is closed, and its spawn stands in the open',
    (name) => {
      const { sight } = bake(name);
      expect(sight.findings.filter(({ severity }) => severity === 'error')).toEqual([]);
      expect(sight.closed).toBe(true);
      expect(sight.figures.reachedPockets).toBeGreaterThan(1);
    },
    120000,
  );

  it('has one level that leaks', () => {
    const { sight } = bake('Weighbridge');
    expect(sight.findings.map(({ code }) => code)).toEqual(['LEAK']);
    expect(sight.wayOut?.length).toBeGreaterThan(2);
  }, 60000);

  it('has a zigzag whose far end is hidden from its start', () => {
    const { sight } = bake('Kiln Tunnels');
    const spawnPocket = sight.pockets.findIndex(
      ({ bounds: { min, max } }) => min[0] <= 1.5 && max[0] >= 1.5 && min[2] <= 1.5 && max[2] >= 1.5,
    );
    const exitPocket = sight.pockets.findIndex(
      ({ bounds: { min, max } }) => min[0] <= 25.5 && max[0] >= 25.5 && min[2] <= 14 && max[2] >= 14,
    );
    expect(sight.visible[spawnPocket]).not.toContain(exitPocket);
    expect(sight.visible[spawnPocket].length).toBeLessThan(sight.figures.reachedPockets);
  }, 60000);

  it('has a yard that is over what the handheld holds, and within what the tower does', () => {
    const { figures } = bake('Cullet Yard');
    const over = (device: string) =>
      budgetFindings(
        levelNamed('Cullet Yard'),
        { count: undefined, baked: { figures, isFresh: true } },
        demo.records.device[device],
      ).map(({ code }) => code);
    expect(over('handheld')).toContain('OVER_TRIANGLES');
    expect(over('desk-tower')).toEqual([]);
    // The parts of the worst pocket add up to it.
    const [worst] = figures.worst;
    expect(worst.causes.reduce((sum, { triangles }) => sum + triangles, 0)).toBe(worst.triangles);
    expect(worst.strata.reduce((sum, { triangles }) => sum + triangles, 0)).toBe(worst.triangles);
  }, 120000);

  it('has an open flat of which one cell arrives late on the handheld, and none on the tower', async () => {
    const level = levelNamed('Low Water');
    const { meshFiles, compression } = targetOf(demo.records);
    const kitLoads: Record<string, KitLoad> = {};
    for (const kit of Object.values(demo.records.kit)) {
      const pieces = Object.values(demo.records.piece).filter((piece) => piece.kit === kit.id);
      const glb = demo.assets.get(kit.mesh) ?? new Uint8Array();
      const meshes = await meshLoads({ glb, meshFiles, compression }, createRunContext());
      kitLoads[kit.id] = kitLoad(kit, pieces, DEFAULT_VIEW, meshFiles, meshes);
    }
    const walk = (device: string) => {
      const rehearsal = { ...demo.records.rehearsal['low-water-run'], device };
      const scene = { ...sceneOf(level), kitLoads, grid: demo.records.cellGrid[level.id], rehearsals: [rehearsal] };
      return bringBake(scene, { kind: 'rehearsal', subject: rehearsal.id }, cache, createRunContext()).result;
    };
    const slow = walk('handheld');
    expect(slow.late.map(({ key }) => key)).toEqual(['5,3']);
    expect(slow.late[0].lateMs).toBeGreaterThan(500);
    expect(slow.cut.cells).toHaveLength(64);
    expect(slow.cut.straddlers.map(({ name }) => name)).toContain('pier');
    expect(slow.cut.residentThings.map(({ name }) => name)).toEqual(['breakwater']);
    expect(walk('desk-tower').findings).toEqual([]);
  }, 60000);

  it('has a kit whose chains get coarser and farther off step by step', () => {
    const chains = Object.values(demo.records.piece).filter(({ kit }) => kit === 'kit-reach');
    expect(chains).toHaveLength(3);
    for (const { steps } of chains) {
      expect(steps.length).toBeGreaterThanOrEqual(5);
      for (let k = 1; k < steps.length; k++) {
        expect(steps[k].triangles).toBeLessThan(steps[k - 1].triangles);
        expect(steps[k].deviationMetres).toBeGreaterThan(0);
      }
    }
  });

  it('can be packed: it has no errors', () => {
    const inspections = Object.fromEntries(
      Object.values(demo.records.kit).map((kit) => [kit.id, inspectKit(demo.assets.get(kit.mesh) ?? new Uint8Array())]),
    );
    expect(checkPack({ content: demo, inspections, choice: { withAllPurposes: true } }, createRunContext())).toEqual(
      [],
    );
  });
});
