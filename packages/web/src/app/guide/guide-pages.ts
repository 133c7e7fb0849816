import budget from '../../../../../docs/guide/budget.md';
import cells from '../../../../../docs/guide/cells.md';
import detail from '../../../../../docs/guide/detail.md';
import files from '../../../../../docs/guide/files-and-limits.md';
import layout from '../../../../../docs/guide/layout.md';
import pack from '../../../../../docs/guide/pack.md';
import sections from '../../../../../docs/guide/sections.md';
import sets from '../../../../../docs/guide/sets.md';
import sight from '../../../../../docs/guide/sight.md';
import start from '../../../../../docs/guide/start.md';
import words from '../../../../../docs/glossary.md';
import figures from '../../../../../docs/model.md';
import type { GuideSource } from './guide-sections';

/** All that the guide holds, in the order of the work. */
export const GUIDE_PAGES: readonly GuideSource[] = [
  { id: 'start', text: start },
  { id: 'sets', text: sets },
  { id: 'layout', text: layout },
  { id: 'sections', text: sections },
  { id: 'cells', text: cells },
  { id: 'detail', text: detail },
  { id: 'sight', text: sight },
  { id: 'budget', text: budget },
  { id: 'pack', text: pack },
  { id: 'files-and-limits', text: files, isReference: true },
  { id: 'model', text: figures, isReference: true },
  { id: 'glossary', text: words, isReference: true },
];
