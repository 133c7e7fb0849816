import {
  checkUnlocking,
  randomStream,
  unlockModel,
  type Level,
  type LevelOrder,
  type RecordTables,
  type UnlockRule,
} from '@stravel/core';
import { emptyRecordTables } from '@stravel/core';
import { atMost, timing, timingText, type Row } from '../measure';

const SIZES = [200, 400, 800, 1200, 2000];
const ROUNDS = 15;
/** What n log n gives between the smallest and the largest size. */
const SLOPE_OF_N_LOG_N = Math.log((2000 * Math.log(2000)) / (200 * Math.log(200))) / Math.log(10);

/** Levels in a long line with side ways, thresholds, resets, and a few that can never open. */
function collection(count: number): RecordTables {
  const random = randomStream(`unlock ${count}`);
  const level: Record<string, Level> = {};
  const levelOrder: Record<string, LevelOrder> = {};
  const digits = (i: number): string => String(i).padStart(6, '0');
  for (let i = 0; i < count; i++) {
    const id = `l${digits(i)}`;
    level[id] = {
      id,
      name: `Level ${i + 1}`,
      key: `level-${i + 1}`,
      set: 's',
      order: `a${digits(i)}`,
      purpose: 'play',
      code: '',
      values: {},
      strata: [],
      openSky: false,
      bounds: null,
      binned: null,
    };
    const before = (back: number): string => `l${digits(Math.max(0, i - back))}`;
    const rules: UnlockRule[] = [];
    if (i === 0) rules.push({ kind: 'start' });
    else if (random.next() < 0.1)
      rules.push({ kind: 'value', value: random.next() < 0.5 ? 'shards' : 'lamps', least: 1 + random.below(i * 6) });
    else if (random.next() < 0.1)
      rules.push({
        kind: 'after',
        levels: [before(1), before(1 + random.below(20)), before(1 + random.below(20))],
        need: random.next() < 0.5 ? 'any' : 'all',
      });
    else rules.push({ kind: 'after', levels: [before(1 + random.below(3))], need: 'all' });
    const gains = [
      { value: 'shards', least: 0, most: 3 + random.below(10) },
      { value: 'lamps', least: 0, most: 1 + random.below(8) },
    ];
    levelOrder[id] = { id, rules, gains, resets: random.next() < 0.01 ? ['lamps'] : [] };
  }
  const values = ['shards', 'lamps'].map(
    (id, i) => [id, { id, name: id, start: 0, counts: 'once', order: `a${i}` }] as const,
  );
  return {
    ...emptyRecordTables(),
    set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
    level,
    levelOrder,
    carriedValue: Object.fromEntries(values),
  };
}

/** How the time of the unlock check grows with the number of levels: the slope over the logarithms, by least squares. */
export async function unlockBench(): Promise<Row[]> {
  const models = SIZES.map((size) => unlockModel(collection(size)));
  const samples = SIZES.map((): number[] => []);
  let findings = 0;
  for (let round = -3; round < ROUNDS; round++) {
    models.forEach((model, i) => {
      const start = performance.now();
      findings = checkUnlocking(model).findings.length;
      if (round >= 0) samples[i].push(performance.now() - start);
    });
    await new Promise((resolve) => setTimeout(resolve));
  }
  const times = samples.map((one) => timing(one));
  const x = SIZES.map(Math.log);
  const y = times.map(({ medianMs }) => Math.log(medianMs));
  const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [mx, my] = [mean(x), mean(y)];
  const slope =
    x.reduce((sum, one, i) => sum + (one - mx) * (y[i] - my), 0) / x.reduce((sum, one) => sum + (one - mx) ** 2, 0);
  return [
    ...SIZES.map((size, i): Row => ({ name: `unlock check of ${size} levels`, value: timingText(times[i]) })),
    { name: 'findings at 2000 levels', value: findings },
    atMost(
      `slope from 200 to 2000 levels (n log n gives ${SLOPE_OF_N_LOG_N.toFixed(2)})`,
      slope,
      Number((SLOPE_OF_N_LOG_N * 1.1).toFixed(2)),
    ),
  ];
}
