import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Piece } from '@stravel/core';
import { KitLibrary } from './kit-library';
import type { PieceMesh } from './kit-meshes';
import { PiecePictures } from './piece-pictures';

jest.mock('../when-idle', () => ({ whenIdle: (work: () => void) => setTimeout(work) }));

const piece = (id: string): Piece =>
  ({ id, kit: `kit of ${id}`, bounds: { min: [0, 0, 0], max: [1, 1, 1] } }) as unknown as Piece;
const mesh = (): PieceMesh => ({ steps: [] });
const turn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

describe('pictures of pieces', () => {
  const meshes = signal<ReadonlyMap<string, PieceMesh>>(new Map());
  const want = jest.fn();
  const draw = jest.fn();
  const revoked: string[] = [];
  /** Waits until so many pictures were drawn. */
  const worked = async (times: number): Promise<void> => {
    while (draw.mock.calls.length < times) await turn();
    for (let i = 0; i < 4; i++) await turn();
  };
  let pictures: PiecePictures;

  beforeEach(() => {
    jest.clearAllMocks();
    meshes.set(new Map());
    revoked.length = 0;
    draw.mockResolvedValue(new Blob());
    let count = 0;
    Object.assign(URL, {
      createObjectURL: () => `blob:${++count}`,
      revokeObjectURL: (url: string) => revoked.push(url),
    });
    TestBed.configureTestingModule({ providers: [{ provide: KitLibrary, useValue: { meshes, want } }] });
    pictures = TestBed.inject(PiecePictures);
  });

  it('are made once each, in the order asked for, of those whose kit is read', async () => {
    const [a, b, c] = ['a', 'b', 'c'].map(piece);
    meshes.set(new Map([a, b].map(({ id }) => [id, mesh()])));
    pictures.want([b, c, a], draw);
    await worked(2);
    expect([...pictures.urls()]).toEqual([
      ['b', 'blob:1'],
      ['a', 'blob:2'],
    ]);
    pictures.want([a, b], draw);
    await worked(2);
    expect([draw.mock.calls.length, want.mock.calls.at(-1)]).toEqual([2, [new Set(['kit of a', 'kit of b'])]]);
  });

  it('follow a kit that is read later, or again', async () => {
    const a = piece('a');
    pictures.want([a], draw);
    await worked(0);
    expect(pictures.urls().size).toBe(0);
    meshes.set(new Map([['a', mesh()]]));
    TestBed.tick();
    await worked(1);
    expect([pictures.urls().get('a'), revoked]).toEqual(['blob:1', []]);
    meshes.set(new Map([['a', mesh()]]));
    TestBed.tick();
    await worked(2);
    expect([pictures.urls().get('a'), revoked]).toEqual(['blob:2', ['blob:1']]);
  });

  it('stop when others are asked for, leave out what cannot be drawn, and wait for something that draws', async () => {
    const all = ['a', 'b', 'c', 'd', 'e'].map(piece);
    meshes.set(new Map(all.map(({ id }) => [id, mesh()])));
    draw.mockImplementationOnce(() => {
      pictures.want([all[3], all[4]], draw);
      return Promise.resolve(new Blob());
    });
    draw.mockRejectedValueOnce(new Error('no pixels'));
    pictures.want(all.slice(0, 3), draw);
    await worked(3);
    expect([...pictures.urls().keys()]).toEqual(['a', 'e']);
    pictures.want(all, () => undefined);
    await worked(3);
    expect([...pictures.urls().keys()]).toEqual(['a', 'e']);
    pictures.want(all, draw);
    await worked(5);
    expect([...pictures.urls().keys()]).toEqual(['a', 'e', 'b', 'c']);
  });
});
