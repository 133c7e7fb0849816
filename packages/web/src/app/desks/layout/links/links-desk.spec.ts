import { TestBed } from '@angular/core/testing';
import { layoutBed } from '../testing/layout-bed';
import { BLOCK, CRATE, PLACEMENT } from '../testing/placed';
import { LinksDesk } from './links-desk';

const marker = { id: 'm', kind: 'checkpoint', position: [1, 0, 2], turn: 0 } as const;
const volume = {
  id: 'v',
  name: 'hum',
  kind: '',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  shape: { form: 'box', size: [1, 1, 1] },
} as const;

describe('links', () => {
  it('are made from one thing by the event of its kind, changed in what changed, and deleted', async () => {
    const bed = layoutBed({
      content: { volume: [volume], marker: [marker], block: [BLOCK], placement: [PLACEMENT] },
      tables: { piece: { crate: CRATE } },
      answers: [
        { action: ' open ', target: 'm', arguments: 'speed=2' },
        { action: 'open', target: 'm', delay: 1.5, arguments: 'speed=2' },
        { action: '' },
      ],
    });
    const links = TestBed.inject(LinksDesk);
    await links.add();
    expect(bed.asked).toEqual([]);
    bed.desk.select([{ stratum: 'st', kind: 'volume', id: 'v' }]);
    await links.add();
    const [link] = [...bed.document.itemsOf('link')];
    expect(link).toMatchObject({ emitter: 'v', event: 'enter', action: 'open', target: 'm', arguments: { speed: 2 } });
    await links.edit(link.id);
    expect(bed.commits[1].operations.map(({ field, after }) => [field, after])).toEqual([['delaySeconds', 1.5]]);
    expect(links.lines().map(({ text }) => text)).toEqual(['enter → open: checkpoint at 1, 0, 2 after 1.5 s']);
    bed.desk.select([{ stratum: 'st', kind: 'marker', id: 'm' }]);
    expect(links.lines().map(({ text }) => text)).toEqual(['hum at 0, 0, 0, enter → open after 1.5 s']);
    await links.add();
    expect(bed.notices).toEqual(['Say what the target does: an action.']);
    await links.delete(link.id);
    expect([...bed.document.itemsOf('link')]).toEqual([]);
  });
});
