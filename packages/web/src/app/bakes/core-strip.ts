import type { HeldFigure } from '@stravel/core';
import type { LevelCore } from './core-bands';
import { heldText, type Measure } from './core-bands';
import { bandSizes } from '../ui/band-sizes';

/** The end of a strip, as a multiple of the limit: all strips of a table share it, so that they compare. */
const END = 1.5;
/** As wide as a table draws it, pixels. */
const WIDTH_PIXELS = 96;

/** A core lying in a row: its bands from the left, with the limit of the device as a tick. */
export interface CoreStrip {
  /** Its bands as a background. */
  readonly background: string;
  readonly widthPercent: number;
  /** Undefined without a limit. */
  readonly limitPercent: number | undefined;
  readonly state: HeldFigure['state'];
  /** Whether it goes on beyond the end. */
  readonly isCut: boolean;
  /** What it comes to, then its bands, a line each. */
  readonly text: string;
}

/** The strip of a core. @param limit 0 for none */
export function coreStrip({ bands, held }: LevelCore, measure: Measure, limit: number): CoreStrip {
  const sum = bands.reduce((total, { value }) => total + value, 0);
  const end = limit > 0 ? limit * END : Math.max(sum, 1e-9);
  const sizes = bandSizes(bands, WIDTH_PIXELS / end, WIDTH_PIXELS);
  const width = sizes.reduce((total, size) => total + size, 0);
  let at = 0;
  const stops = bands.map(({ role }, i) => {
    const from = at;
    at += (sizes[i] / width) * 100;
    return `var(--${role === 'kit' ? 'stone' : `role-${role}`}) ${from.toFixed(2)}% ${at.toFixed(2)}%`;
  });
  return {
    background: stops.length > 0 ? `linear-gradient(90deg, ${stops.join(', ')})` : 'none',
    widthPercent: bands.length === 0 ? 100 / END : Math.min(100, (width / WIDTH_PIXELS) * 100),
    limitPercent: limit > 0 ? 100 / END : undefined,
    state: held.state,
    isCut: sum > end,
    text: [`${measure}: ${heldText(measure, held)}`, ...bands.map(({ name, text }) => `${name} ${text}`)].join('\n'),
  };
}
