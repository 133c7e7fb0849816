import type { Piece } from '../../model/kit';
import { idUses, overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<Piece>({ kit: { to: 'kit', isStrict: true } });

export const PIECE: RecordSpec<'piece'> = {
  words: { one: 'piece', many: 'pieces' },
  table: null,
  pointsAt: ['kit'],
  meshFields: ['name', 'kit'],
  ids: (record, each) => overIds(record, each, IDS),
  asUser: calledBy('piece'),
};
