import { finding, type Finding } from '../findings';
import type { RecordTables } from '../model/records';
import { movedText } from './piece-origin';

/** The pieces that lie beside where they lay before they were replaced, in order of their ids. */
export function originFindings({ piece }: Pick<RecordTables, 'piece'>): Finding[] {
  return Object.values(piece)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .flatMap(({ id, name, movedOrigin }) =>
      movedOrigin
        ? finding({
            code: 'PIECE_ORIGIN_MOVED',
            desk: 'detail',
            severity: 'warning',
            subject: id,
            place: { piece: id },
            message: `${name} lies ${movedText(movedOrigin)} beside where it lay before it was replaced`,
            why: 'Its placements are shifted by as much. Import its file again and have it moved back, or accept this if it is meant.',
          })
        : [],
    );
}
