import type { Level } from '../model/level';

/** A play level with one stratum of its own and no bounds. */
export function plainLevel(over: Partial<Level> = {}): Level {
  return {
    id: 'l',
    name: 'L',
    set: 's',
    order: 'a0',
    purpose: 'play',
    key: 'level',
    code: '',
    values: {},
    strata: [{ stratum: 'own', switchedOff: false }],
    openSky: false,
    bounds: null,
    binned: null,
    ...over,
  };
}
