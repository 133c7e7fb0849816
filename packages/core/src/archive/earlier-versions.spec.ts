import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { archiveCollection } from './archive-collection';
import { ARCHIVE_VERSION } from './archive-files';
import { restoreCollection } from './restore-collection';

/** Each was written by the Stravel of that version: two levels whose names are one as keys, one without a Latin letter, a kit. */
const earlier = Array.from({ length: ARCHIVE_VERSION - 1 }, (_unused, i) => i + 1);

describe('archives of earlier versions', () => {
  it.each(earlier)(
    'version %i is read, its levels and kits get keys, and it is written anew as the current one',
    (version) => {
      const content = restoreCollection(
        new Uint8Array(readFileSync(join(__dirname, `earlier/version-${version}.zip`))),
      );
      expect(
        Object.values(content.records.level)
          .map(({ id, name, key }) => [id, name, key])
          .sort(),
      ).toEqual([
        ['one', 'Sorting Hall', 'sorting-hall'],
        ['three', 'Зал', 'level-2'],
        ['two', 'Sorting  hall!', 'sorting-hall-2'],
      ]);
      expect(Object.values(content.records.kit).map(({ key }) => key)).toEqual(['kit']);
      expect(content.strata.get('own')?.placement).toEqual([
        { id: 'p1', piece: 'pin', position: [1.25, 0, -2], turn: [15, 0, 0], scale: [1, 1, 1] },
      ]);
      expect(content.assets.size).toBe(1);
      const now = archiveCollection(content);
      expect(Object.keys(unzipSync(now))).toEqual(
        expect.arrayContaining([
          'levels/sorting-hall.json',
          'levels/level-2.json',
          'levels/sorting-hall-2.json',
          'kits/kit.glb',
        ]),
      );
      expect(Buffer.compare(Buffer.from(archiveCollection(restoreCollection(now))), Buffer.from(now))).toBe(0);
    },
  );
});
