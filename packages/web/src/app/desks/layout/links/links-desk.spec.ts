import { TestBed } from '@angular/core/testing';
import { layoutBed, type LayoutBed } from '../testing/layout-bed';
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
const VOLUME = { stratum: 'st', kind: 'volume', id: 'v' } as const;
const MARKER = { stratum: 'st', kind: 'marker', id: 'm' } as const;

function bedOf(): { bed: LayoutBed; links: LinksDesk } {
  const bed = layoutBed({
    content: { volume: [volume], marker: [marker], block: [BLOCK], placement: [PLACEMENT] },
    tables: { piece: { crate: CRATE } },
  });
  return { bed, links: TestBed.inject(LinksDesk) };
}

async function linked(links: LinksDesk, action: string, target = 'm'): Promise<string> {
  links.add();
  const { id } = links.sentences()[links.sentences().length - 1].link;
  await links.put(id, { action });
  await links.put(id, { target });
  return id;
}

describe('links', () => {
  it('begin as a sentence that goes into the level once it says what to do with what', async () => {
    const { bed, links } = bedOf();
    links.add();
    expect(links.sentences()).toEqual([]);
    bed.desk.select([VOLUME]);
    links.add();
    links.add();
    expect(links.sentences()).toMatchObject([{ isDraft: true, link: { emitter: 'v', event: 'enter' } }]);
    const { id } = links.sentences()[0].link;
    await links.put(id, { action: 'open' });
    // What is half said stays while the person looks elsewhere.
    bed.desk.select([MARKER]);
    expect(links.sentences()).toEqual([]);
    bed.desk.select([VOLUME]);
    expect([bed.commits.length, links.sentences()[0].link.action]).toEqual([0, 'open']);
    await links.put(id, { target: 'm' });
    expect([...bed.document.itemsOf('link')]).toMatchObject([{ id, emitter: 'v', action: 'open', target: 'm' }]);
    expect(links.sentences().map(({ isDraft }) => isDraft)).toEqual([false]);
  });

  it('change in the blank that is filled, tell the target of them, and are deleted', async () => {
    const { bed, links } = bedOf();
    bed.desk.select([VOLUME]);
    const id = await linked(links, 'open');
    await links.put(id, { delaySeconds: 1.5 });
    await links.put(id, { delaySeconds: 1.5, who: '' });
    await links.put(id, { arguments: { speed: 2 }, once: true });
    expect(bed.commits.slice(1).map(({ operations }) => operations.map(({ field }) => field))).toEqual([
      ['delaySeconds'],
      ['once', 'arguments'],
    ]);
    bed.desk.select([MARKER]);
    expect(links.incoming().map(({ text }) => text)).toEqual([
      'When anyone enters hum at 0, 0, 0, wait 1.5 s, then open checkpoint at 1, 0, 2, only the first time.',
    ]);
    links.goTo('v');
    expect(bed.desk.state().selection).toEqual([VOLUME]);
    await links.delete(id);
    expect([...bed.document.itemsOf('link')]).toEqual([]);
  });

  it('stand in the person’s order, which one undo of a move takes apart no further', async () => {
    const { bed, links } = bedOf();
    bed.desk.select([VOLUME]);
    const ids = [await linked(links, 'open'), await linked(links, 'start'), await linked(links, 'stop')];
    const order = (): string[] => links.sentences().map(({ link }) => link.id);
    expect(order()).toEqual(ids);
    await links.move(ids[2], -1);
    expect(order()).toEqual([ids[0], ids[2], ids[1]]);
    await links.move(ids[0], -1);
    await links.move(ids[1], 1);
    expect([order(), bed.commits.length]).toEqual([[ids[0], ids[2], ids[1]], 4]);
    await links.move(ids[0], 1);
    await links.move(ids[0], 1);
    expect(order()).toEqual([ids[2], ids[1], ids[0]]);
  });

  it('take what is pointed at as the target, and nothing that cannot be one', async () => {
    const { bed, links } = bedOf();
    bed.desk.select([VOLUME]);
    links.add();
    const { id } = links.sentences()[0].link;
    await links.put(id, { action: 'open' });
    expect(links.pointAt(MARKER)).toBe(false);
    links.point(id);
    expect([links.pointAt(undefined), links.pointing()]).toEqual([true, id]);
    expect([links.pointAt(MARKER), links.pointing()]).toEqual([true, undefined]);
    await bed.settled();
    expect([...bed.document.itemsOf('link')].map(({ target }) => target)).toEqual(['m']);
    // What is begun stays what it is of, whatever is selected meanwhile.
    links.add();
    const { id: second } = links.sentences()[1].link;
    await links.put(second, { action: 'close' });
    links.point(second);
    bed.desk.select([]);
    expect(links.pointAt(MARKER)).toBe(true);
    await bed.settled();
    expect([...bed.document.itemsOf('link')].find((link) => link.id === second)).toMatchObject({ emitter: 'v' });
    bed.desk.select([VOLUME]);
    links.point(id);
    expect([links.stopPointing(), links.stopPointing()]).toEqual([true, false]);
    links.point(id);
    links.point(id);
    expect(links.pointing()).toBeUndefined();
    expect(links.targets().map(({ name }) => name)).toContain('checkpoint at 1, 0, 2');
  });
});
