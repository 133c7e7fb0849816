import { StratumBuilder } from './builder';
import type { BuiltStratum } from './built-levels';

export const MOULD_BENCH = 'mould-bench';
export const BENCH_ROW = 'bench-row';

/** What is furnished alike in several levels: a bench with its moulds, and a row of two benches with a lamp between. */
export function demoAssemblies(kit: string): BuiltStratum[] {
  const bench = new StratumBuilder(MOULD_BENCH)
    .box('bench', [0, 0, 0], [2.4, 0.9, 0.8], 0, 'timber', 'decor')
    .place('piece-crate', [-1.9, 0, 0.2], 10)
    .place('piece-bottle-heap', [1.9, 0, 0], 40);
  const row = new StratumBuilder(BENCH_ROW)
    .use(MOULD_BENCH, [-3.4, 0, 0])
    .use(MOULD_BENCH, [3.4, 0, 0], 180)
    .place('piece-lamp-post', [0, 0, 0]);
  return [
    { stratum: { id: MOULD_BENCH, name: 'Mould bench', role: 'dressing', owner: null, kit }, content: bench.build() },
    {
      stratum: { id: BENCH_ROW, name: 'Bench row', role: 'dressing', owner: null, kit, assemblies: [MOULD_BENCH] },
      content: row.build(),
    },
  ];
}
