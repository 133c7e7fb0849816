import { bakeSight, createRunContext, type SightResult } from '@stravel/core';
import { roomGrid } from '@stravel/core/testing';
import { atMost, inTurns, timing, timingText, type Row } from '../measure';
import { sampleVisibleSets, type SampledSets } from './ray-sampler';

const ROUNDS = 5;

/** The whole sight bake of 20 by 20 rooms against a plain sampler, and how the bake grows with the building. */
export async function sightBench(): Promise<Row[]> {
  const input = roomGrid(20, 20);
  let result: SightResult = bakeSight(input, {}, createRunContext());
  let sampled: SampledSets = { seen: [], rays: 0 };
  const [bake, sampler] = await inTurns(
    ROUNDS,
    () => (result = bakeSight(input, {}, createRunContext())),
    () => (sampled = sampleVisibleSets(result)),
  );
  const pairs = result.figures.visiblePairs;
  const missed = result.visible.reduce((sum, list, a) => sum + list.filter((b) => !sampled.seen[a].has(b)).length, 0);
  const growth = [5, 10, 15, 20].map((side) => {
    const grid = roomGrid(side, side);
    const times = Array.from({ length: 4 }, () => {
      const start = performance.now();
      bakeSight(grid, {}, createRunContext());
      return performance.now() - start;
    }).slice(1);
    return { side, medianMs: timing(times).medianMs };
  });
  const ratio = bake.medianMs / sampler.medianMs;
  return [
    { name: 'bake of 20 × 20 rooms, partition included', value: timingText(bake) },
    { name: 'plain sampler, 64 points × 64 directions a pocket', value: timingText(sampler) },
    atMost('bake / sampler', ratio, 1, 3),
    { name: 'bake / sampler, aim', value: ratio.toFixed(3), goal: 'aim: at most 0.1', isMet: ratio <= 0.1 },
    { name: 'pockets', value: result.figures.pockets },
    { name: 'pairs that see each other', value: pairs },
    { name: 'pairs that the sampler misses', value: `${missed} (${((100 * missed) / pairs).toFixed(1)} %)` },
    { name: 'rays a second of the sampler', value: Math.round((sampled.rays / sampler.medianMs) * 1000) },
    { name: 'steps a second of the bake', value: Math.round((result.figures.steps / bake.medianMs) * 1000) },
    ...growth.map(({ side, medianMs }) => ({
      name: `bake of ${side} × ${side} rooms`,
      value: `${medianMs.toFixed(1)} ms, ${((medianMs / (side * side)) * 1000).toFixed(0)} µs a room`,
    })),
  ];
}
