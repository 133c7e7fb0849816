import { plainJson, plainRecord } from '../../json/plain-json';
import { CoreError } from '../../errors';
import { figuresInput } from '../../budget/figures-input';
import { withSectionFigures } from '../../budget/section-figures';
import { FIGURES_VERSION, levelFigures, type BakedFigures } from '../../budget/level-figures';
import { hashedColumns } from '../../items/placement/columns-json';
import type { LinkedLevel } from '../../layout/links/link-findings';
import { isJsonTable, type Json } from '../../model/json';
import { sightFile } from '../../sight/sight-file';
import { neededOf, type BakeSpec } from '../bake-spec';
import { needsSections, sectionsAmong } from '../section/needs-sections';

export const FIGURES: BakeSpec<'figures'> = {
  words: { one: 'figures', many: 'figures' },
  version: FIGURES_VERSION,
  records: ['piece', 'kit', 'collection'],
  subjects: ({ content }) => [content.level.id],
  needs: (scene) => [
    { ref: { kind: 'sight', subject: scene.content.level.id }, part: null },
    ...needsSections(scene, null),
  ],
  reads: ({ content, pieces, view }) => figuresInput(content, pieces, view),
  hashed: ({ strata, linked, ...reads }) => ({
    ...plainRecord(reads),
    linked: hashedLinked(linked),
    strata: strata.map(({ placements, ...one }) => ({ ...plainRecord(one), placements: hashedColumns(placements) })),
  }),
  make: (reads, needed, context) => {
    const [sight] = neededOf(needed, 'sight');
    if (!sight) throw new CoreError('BAKE_NEEDS_SIGHT', 'figures: need the sight of their level');
    const input = { ...withSectionFigures(reads, sectionsAmong(needed)), sight: sight.result };
    return {
      ...levelFigures(input, context),
      sightFileBytes: sightFile(input.strata, sight.result, new Map(input.pieces.map((piece) => [piece.id, piece])))
        .length,
    };
  },
  parts: () => ({}),
  summary: withoutPockets,
  check: (value): value is BakedFigures =>
    isJsonTable(value) && value['version'] === FIGURES_VERSION && Array.isArray(value['pocketTriangles']),
};

/** Sections are read by their keys: none is in it yet. */
function hashedLinked(linked: LinkedLevel | null): Json {
  if (!linked) return null;
  const strata = linked.strata.map(({ stratum, content }) => ({
    stratum: plainRecord(stratum),
    content: plainJson(content),
  }));
  return { level: plainRecord(linked.level), strata };
}

/** What is counted pocket by pocket is as long as there are pockets. */
const BY_POCKET: ReadonlySet<string> = new Set<keyof BakedFigures>([
  'pocketTriangles',
  'pocketDrawCalls',
  'pocketThings',
]);

function withoutPockets(figures: BakedFigures): object {
  return Object.fromEntries(Object.entries(figures).filter(([name]) => !BY_POCKET.has(name)));
}
