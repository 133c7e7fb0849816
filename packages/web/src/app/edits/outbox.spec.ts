import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MODEL_VERSION, sha256Hex, type Path } from '@stravel/core';
import { upToDate, type WaitingEdit } from './outbox';

const golden = JSON.parse(
  readFileSync(join(__dirname, '../../../../../golden/outbox.json'), 'utf8'),
) as readonly WaitingEdit[];

describe('waiting edits', () => {
  it('of an earlier version are upgraded as they are read, the others left as they are', () => {
    const edits = upToDate(golden);
    expect(edits.map(({ place, model }) => [place, model])).toEqual(golden.map(({ place }) => [place, MODEL_VERSION]));
    expect(upToDate(edits)).toEqual(edits);
    expect(sha256Hex(JSON.stringify(edits.map(({ edit }) => edit))).slice(0, 16)).toBe('d9546cb978b62ca7');
    const paths = edits
      .flatMap(({ edit }) => edit.operations)
      .flatMap(({ kind, field, before }) => (kind === 'path' && field === null ? [before as unknown as Path] : []));
    expect(paths.map(({ knots }) => knots.map(({ id }) => id))).toEqual([['k0', 'k1', 'k2']]);
  });

  it('of a newer version are left to the page that wrote them', () => {
    const [one] = upToDate(golden);
    expect(upToDate([{ ...one, model: MODEL_VERSION + 1 }])).toEqual([]);
  });
});
