import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Kit } from '@stravel/core';
import { OpenLevel } from '../document/level/open-level';
import { KitLibrary } from './kit-library';

describe('the kit library', () => {
  it('reads the kits from which something stands in the open level, and those that are asked for, each once', () => {
    const fetched: string[] = [];
    const usedKits = signal<ReadonlySet<string>>(new Set(['yard']));
    const kits = ['yard', 'hall', 'spare', 'idle'].map(
      (id) => ({ id, name: id, key: id, mesh: `mesh of ${id}` }) as Kit,
    );
    const opened = {
      usedKits,
      kits: (wanted: ReadonlySet<string>) =>
        kits
          .filter(({ id }) => wanted.has(id))
          .map((kit) => ({
            kit,
            pieces: [],
            get bytes() {
              fetched.push(kit.id);
              return new Promise<ArrayBuffer>(() => undefined);
            },
          })),
    };
    TestBed.configureTestingModule({ providers: [{ provide: OpenLevel, useValue: opened }] });
    const library = TestBed.inject(KitLibrary);
    TestBed.tick();
    expect([...new Set(fetched)]).toEqual(['yard']);
    usedKits.set(new Set(['hall']));
    library.want(['spare', 'spare', 'gone']);
    TestBed.tick();
    expect(new Set(fetched)).toEqual(new Set(['yard', 'hall', 'spare']));
  });
});
