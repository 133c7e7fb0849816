// The door of whoever walks a pack, and of what a walk is forecast with.
export { walkPath } from '../../cells/walk-path';
export { ReadQueue, type FileLoad } from '../../cells/read-queue';
export { STEP_METRES } from '../../cells/footing';
export { INSTANCE_BYTES, surfaceBytes } from '../../budget/cost-model';
export { openGlb } from '../../formats/glb/open-glb';
export { inspectKit } from '../inspect-kit';
export {
  COMPARED,
  compareWalks,
  figuresAtStops,
  type ComparedFigure,
  type DifferingObject,
  type WalkComparison,
  type WalkDifference,
} from './compare-walks';
export { TOGETHER, latticeCell, numberIn } from './drawn-scene';
export { forecastWalk, type ForecastInput, type WalkForecast } from './forecast-walk';
export {
  DrawnChanges,
  EYE_METRES,
  lodsAtStop,
  stopFrames,
  type RunCell,
  type RunLoad,
  type WalkRun,
  type WalkStop,
  type Way,
} from './walk-run';
