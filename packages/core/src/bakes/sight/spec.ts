import { plainJson } from '../../json/plain-json';
import { isJsonTable } from '../../model/json';
import { bakeSight } from '../../sight/bake-sight';
import { joinedSight, levelSightInput } from '../../sight/level-sight-input';
import { SIGHT_VERSION } from '../../sight/sight-input';
import type { SightResult } from '../../sight/sight-result';
import type { BakeSpec } from '../bake-spec';
import { needsSections, sectionsAmong } from '../section/needs-sections';
import { sectionSight } from '../section/section-sight';

export const SIGHT: BakeSpec<'sight'> = {
  words: { one: 'sight', many: 'sights' },
  version: SIGHT_VERSION,
  records: [],
  subjects: ({ content }) => [content.level.id],
  needs: (scene) => needsSections(scene, 'sight'),
  reads: ({ content }) => levelSightInput(content),
  hashed: (reads) => plainJson(reads),
  make: (input, needed, context) => {
    const sections = sectionsAmong(needed).map(({ section }) => sectionSight(section));
    return bakeSight(joinedSight(input, sections), {}, context);
  },
  parts: () => ({}),
  summary: ({ closed, wayOut, findings, figures }) => ({ closed, wayOut, findings, figures }),
  check: (value): value is SightResult =>
    isJsonTable(value) &&
    value['version'] === SIGHT_VERSION &&
    Array.isArray(value['pockets']) &&
    Array.isArray(value['visible']) &&
    value['visible'].length === value['pockets'].length,
};
