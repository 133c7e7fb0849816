/// <reference lib="webworker" />
import {
  checkUnlocking,
  emptyRecordTables,
  levelFigureIn,
  setFindings,
  type Finding,
  type LevelFiguresTable,
  type UnlockModel,
} from '@stravel/core';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import type { MirrorAnswer, MirrorRequest } from './mirror-protocol';

installLinearPatterns();
const tables = emptyRecordTables();
let figures: LevelFiguresTable = {};
/** Findings of the order of play last checked, by its model: most changes leave it alone, and a search over all plays takes long. */
let lastOrder: { readonly model: string; readonly findings: readonly Finding[] } | undefined;
let due: ReturnType<typeof setTimeout> | undefined;

addEventListener('message', ({ data }: MessageEvent<MirrorRequest>) => {
  switch (data.type) {
    case 'records': {
      // The page sends what its own store holds.
      const table = tables[data.kind] as Record<string, unknown>;
      for (const [id, record] of data.changed) table[id] = record;
      for (const id of data.gone) delete table[id];
      break;
    }
    case 'figures':
      figures = data.figures;
      break;
    case 'check': {
      const { round } = data;
      // Of checks that wait in a row only the last one counts.
      clearTimeout(due);
      due = setTimeout(() => {
        const answer: MirrorAnswer = {
          round,
          findings: setFindings(tables, levelFigureIn(tables, figures), orderFindings),
        };
        postMessage(answer);
      });
    }
  }
});

function orderFindings(model: UnlockModel): readonly Finding[] {
  const key = JSON.stringify([
    model.values,
    model.levels.map(({ gains, resets, ...level }) => ({ ...level, gains: [...gains], resets: [...resets] })),
  ]);
  if (lastOrder?.model !== key) lastOrder = { model: key, findings: checkUnlocking(model).findings };
  return lastOrder.findings;
}
