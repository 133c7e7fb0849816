import type { LevelScene } from '../../bakes/bake-spec';
import { walkLevel } from '../../bakes/rehearsal/make-rehearsal';
import { rehearsalReads } from '../../bakes/rehearsal/rehearsal-reads';
import { FOOTING_METRES } from '../../cells/footing';
import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { Vector3 } from '../../model/vector';
import { withSections, type MadeSection } from '../../sections/with-sections';
import type { SightResult } from '../../sight/sight-result';
import { gridOf } from '../chunks';
import { DrawnScene } from './drawn-scene';
import { DrawnChanges, EYE_METRES, stopFrames, type RunCell, type Way, type WalkRun, type WalkStop } from './walk-run';

/** What a walk through a level is forecast from. */
export interface ForecastInput {
  /** Its rehearsals are left out. */
  readonly scene: LevelScene;
  readonly way: Way;
  readonly sections: readonly MadeSection[];
  readonly sight: SightResult;
}

export interface WalkForecast extends WalkRun {
  /** Height of the floor every so many metres of the way, for whoever goes it with a pack. */
  readonly floors: { readonly spacingMetres: number; readonly heights: readonly number[] };
  readonly cells: readonly RunCell[];
  readonly readyMetres: number;
}

/** Id of the rehearsal that a way is for the time of its forecast. */
const WAY = 'way';

/**
 * Walks a level as its data says it will be packed: what is loaded when, as a rehearsal does, and at each metre what is drawn of what is there, at
 * which LOD. A level that is not cut is there from the start.
 * @throws CoreError as `makeRehearsal`, 'FIGURES_PIECE_MISSING', 'CANCELLED'
 */
export function forecastWalk({ scene, way, sections, sight }: ForecastInput, context: RunContext): WalkForecast {
  const { level } = scene.content;
  const isCut = scene.grid !== null;
  const grid = {
    ...gridOf(level.id, scene.grid),
    // All of a level that is not cut is always loaded.
    ...(isCut ? {} : { resident: scene.content.strata.map(({ stratum }) => stratum.id) }),
  };
  const rehearsal = { ...way, id: WAY, level: level.id, name: WAY };
  const reads = rehearsalReads({ ...scene, grid, rehearsals: [rehearsal] }, WAY);
  const device = scene.devices[way.device];
  const frameMs = 1000 / device.framesPerSecond;
  const stops: WalkStop[] = [];
  const [triangles, drawCalls]: [number[], number[]] = [[], []];
  let drawn: { readonly scene: DrawnScene; readonly changes: DrawnChanges } | undefined;
  const { cut, walk, path, found } = walkLevel(reads, sections, context, ({ cut: cells, path: line, found: floor }) => {
    const whole = withSections(scene.content, sections);
    const made = new DrawnScene(whole, scene.pieces, scene.view, sight, cells.cellOfThing, context);
    const changes = new DrawnChanges(made.objects.length);
    drawn = { scene: made, changes };
    const frames = stopFrames(line.lengthMetres, way.speedMetresPerSecond, frameMs);
    return (frame, isThere) => {
      if (frame !== frames[stops.length]) return;
      const metres = ((frame * frameMs) / 1000) * way.speedMetresPerSecond;
      const eye = eyeAt(line.at(metres), floorAt(floor.heights, metres));
      const seen = made.draw(eye, isThere, changes);
      stops.push({ frame, metres, eye });
      triangles.push(seen.triangles);
      drawCalls.push(seen.drawCalls);
    };
  });
  if (!drawn) throw new CoreError('REHEARSAL_PATH', 'walk: the way has no frame', { level: level.id });
  return {
    lengthMetres: path.lengthMetres,
    durationMs: walk.figures.durationMs,
    frameMs,
    frames: walk.figures.frames,
    // One that is not cut has no file of cells.
    start: {
      files: walk.figures.startFiles - (isCut ? 0 : 1),
      loadMs: walk.figures.startLoadMs - (isCut ? 0 : device.seekMs),
    },
    timesMs: walk.timesMs,
    residentBytes: walk.residentBytes,
    loads: walk.loads.map(({ what, number, ...load }) => ({
      ...load,
      key: what === 'cell' ? cut.cells[number].key : cut.meshFiles[number].key,
    })),
    late: walk.late.map(({ key, neededMs, readyMs, lateMs, at }) => ({ key, neededMs, readyMs, lateMs, at })),
    stops,
    objects: drawn.scene.objects,
    changes: drawn.changes.changes,
    triangles,
    drawCalls,
    floors: { spacingMetres: FOOTING_METRES, heights: [...found.heights] },
    cells: cut.cells.map(({ key, min, max }) => ({ key, min, max })),
    readyMetres: grid.readyMetres,
  };
}

/** Height of the floor so far along a way; that of the last look before it. */
function floorAt(heights: ArrayLike<number>, metres: number): number {
  return heights[Math.min(heights.length - 1, Math.floor(metres / FOOTING_METRES))];
}

function eyeAt([x, z]: readonly [number, number], floor: number): Vector3 {
  return [x, floor + EYE_METRES, z];
}
