import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { provideStore } from '@ngrx/store';
import { Compute } from '../../../../compute/compute';
import { DocumentRegistry } from '../../../../document/document-registry';
import { OpenLevel } from '../../../../document/level/open-level';
import { recordsFeature } from '../../../../document/records/records-store';
import { EditLog } from '../../../../edits/edit-log';
import { LayoutDesk } from '../../editing/layout-desk';
import { TilesDesk } from './tiles-desk';

describe('the solution of a level’s tile floors', () => {
  it('goes with its level, also when it comes after another was opened', async () => {
    const level = signal({ id: 'batch' });
    let answer: (found: unknown) => void = () => undefined;
    TestBed.configureTestingModule({
      providers: [
        TilesDesk,
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: MatDialog, useValue: {} },
        { provide: DocumentRegistry, useValue: { contentVersion: signal(0) } },
        { provide: OpenLevel, useValue: { level, strata: () => [] } },
        { provide: EditLog, useValue: {} },
        { provide: LayoutDesk, useValue: { oneOf: () => undefined, notify: () => undefined } },
        {
          provide: Compute,
          useValue: { run: () => ({ result: new Promise((resolve) => (answer = resolve)), cancel: () => undefined }) },
        },
      ],
    });
    const tiles = TestBed.inject(TilesDesk);
    const solving = tiles.solve();
    await Promise.resolve();
    level.set({ id: 'mould' });
    answer({ answer: 'never', way: [], states: 1 });
    await solving;
    expect([tiles.solved(), tiles.isOld()]).toEqual([undefined, false]);
    level.set({ id: 'batch' });
    expect(tiles.solved()).toMatchObject({ answer: 'never' });
  });
});
