/// <reference lib="webworker" />
import { emptyRecordTables, levelFigureIn, setFindings, type LevelFiguresTable, type RecordTables } from '@stravel/core';
import type { MirrorAnswer, MirrorRequest } from './mirror-protocol';

const tables = emptyRecordTables();
let figures: LevelFiguresTable = {};
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
        const answer: MirrorAnswer = { round, findings: setFindings(tables, levelFigureIn(tables as RecordTables, figures)) };
        postMessage(answer);
      });
    }
  }
});
