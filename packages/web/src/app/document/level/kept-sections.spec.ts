import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { CoreError, blockColumnsOf, type Recipe, type RecipeInputs } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Compute } from '../../compute/compute';
import { EditLog } from '../../edits/edit-log';
import { Session } from '../../session';
import { KeptSections } from './kept-sections';

const recipe: Recipe = {
  id: 'r',
  name: 'Burrow',
  kind: 'burrow',
  position: [0, 0, 0],
  columns: 1000,
  rows: 1000,
  squareMetres: 2,
  heightMetres: 3,
  openShare: 0.3,
  birthChance: 0,
  mostWalkers: 1,
  border: 1,
  stepLimit: 10000,
  seed: 'one',
  material: 'salt',
  hasMarkers: true,
};
const long = { version: 1, recipe, pins: [] } as unknown as RecipeInputs;
const quick = { version: 1, recipe: { ...recipe, columns: 20, rows: 20 }, pins: [] } as unknown as RecipeInputs;

describe('sections that take long to make', () => {
  let ran: string[];
  let isMade: boolean;
  let asked: { url: string; signal: AbortSignal }[];
  let answer: () => Promise<Response>;
  const saved = signal({ state: 'saved' });
  let kept: KeptSections;

  beforeEach(() => {
    ran = [];
    asked = [];
    saved.set({ state: 'saved' });
    isMade = true;
    const results: Record<string, unknown> = {
      'section-key': 'key',
      'open-section': { kept: true, blocks: blockColumnsOf([]) },
      'make-section': { made: true, blocks: blockColumnsOf([]) },
    };
    TestBed.configureTestingModule({
      providers: [
        {
          provide: Compute,
          useValue: {
            run: (task: string) => {
              ran.push(task);
              let end: (error: Error) => void = () => undefined;
              const result = new Promise((resolve, reject) => {
                end = reject;
                if (task !== 'make-section' || isMade)
                  setTimeout(() => resolve(results[task]), task === 'make-section' ? 20 : 0);
              });
              const cancel = () => {
                ran.push(`cancel ${task}`);
                end(new CoreError('CANCELLED', 'cancelled'));
              };
              return { result, cancel };
            },
          },
        },
        {
          provide: ApiClient,
          useValue: {
            send: (url: string, { signal: stop }: { signal: AbortSignal }) => {
              asked.push({ url, signal: stop });
              return answer();
            },
          },
        },
        { provide: EditLog, useValue: { saveState: saved } },
        { provide: Session, useValue: { collection: signal({ id: 'c' }) } },
      ],
    });
    kept = TestBed.inject(KeptSections);
  });
  const answerOf = (key: string) => () =>
    Promise.resolve({
      headers: { get: () => key },
      arrayBuffer: () => Promise.resolve(new ArrayBuffer(2)),
    } as unknown as Response);
  const bring = (reads: RecipeInputs) => kept.bring('own', reads, () => undefined);

  it('come from the server that keeps them, where it is faster', async () => {
    isMade = false;
    answer = answerOf('key');
    expect(await bring(long).result).toEqual({ kept: true, blocks: [] });
    expect(asked.map(({ url }) => url)).toEqual(['/api/collections/c/bakes/section/own~r']);
    expect(ran).toEqual(['section-key', 'make-section', 'cancel make-section', 'open-section']);
  });

  it('are made where the server keeps another, none, or does not answer', async () => {
    for (answer of [
      answerOf('older'),
      () => Promise.reject(new Error('404')),
      () => new Promise<Response>(() => undefined),
    ]) {
      ran = [];
      expect(await bring(long).result).toEqual({ made: true, blocks: [] });
      expect(ran).toEqual(['section-key', 'make-section']);
    }
    expect(asked[2].signal.aborted).toBe(true);
  });

  it('are made at once where that is quick, or the server does not know of them yet', async () => {
    expect(await bring(quick).result).toEqual({ made: true, blocks: [] });
    saved.set({ state: 'saving' });
    expect(await bring(long).result).toEqual({ made: true, blocks: [] });
    expect([asked, ran]).toEqual([[], ['make-section', 'make-section']]);
  });

  it('are not made any more when they were cancelled', async () => {
    isMade = false;
    answer = () => new Promise<Response>(() => undefined);
    const run = bring(long);
    run.cancel();
    await expect(run.result).rejects.toMatchObject({ code: 'CANCELLED' });
    expect([ran, asked[0].signal.aborted]).toEqual([['section-key', 'make-section', 'cancel make-section'], true]);
  });
});
