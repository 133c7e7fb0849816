export { ALL_SAVINGS, type Savings } from './draw-pack';
export type { LiveMoment, LiveWalk } from './live-walk';
export type { BlockRange } from './pack-objects';
export type { PackScene } from './pack-scene';
export { PackWalk, type MeasuredRun, type NamedObject, type PackWay, type WalkRoute } from './pack-walk';
