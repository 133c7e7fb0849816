import { ownStrata, type BuiltLevel, type Fills } from './built-levels';
import type { StratumBuilder } from './builder';

/** The ground of an open level and the air over it. Metres from the middle. */
export function openGround(
  level: string,
  halfX: number,
  halfZ: number,
  top: number,
  material: string,
): Pick<BuiltLevel, 'level' | 'openSky' | 'bounds'> & { readonly ground: (b: StratumBuilder) => StratumBuilder } {
  return {
    level,
    openSky: true,
    bounds: { min: [-halfX, -2, -halfZ], max: [halfX, top, halfZ] },
    ground: (b) => b.wall('ground', -halfX, -halfZ, halfX, halfZ, -2, 0, material),
  };
}

/** A level of the Flats: its ground and what is built on it, what lies about, and its markers. */
export function openLevel(
  { ground, ...level }: ReturnType<typeof openGround>,
  ...[structure, dressing, markers]: Fills
): BuiltLevel {
  return { ...level, strata: ownStrata(level.level, (b) => structure(ground(b)), dressing, markers) };
}
