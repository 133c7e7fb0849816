import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { provideStore } from '@ngrx/store';
import { ApiClient } from '../../../../api/api-client';
import { Compute } from '../../../../compute/compute';
import { OpenLevel } from '../../../../document/level/open-level';
import { recordsFeature } from '../../../../document/records/records-store';
import { EditLog } from '../../../../edits/edit-log';
import { LayoutDesk } from '../../editing/layout-desk';
import { MasksDesk } from './masks-desk';
import { solidMask } from './new-mask';

describe('painting a mask', () => {
  it('goes on after a stroke that failed, and says what failed', async () => {
    const mask = { ...solidMask([0, 0], [8, 8], 0, 8), id: 'm' };
    const refused: string[] = [];
    const committed: string[][] = [];
    let strokes = 0;
    TestBed.configureTestingModule({
      providers: [
        MasksDesk,
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: MatDialog, useValue: {} },
        { provide: ApiClient, useValue: {} },
        { provide: OpenLevel, useValue: {} },
        { provide: EditLog, useValue: {} },
        {
          provide: Compute,
          useValue: {
            run: () => ({
              result: ++strokes === 1 ? Promise.reject(new Error('the worker ended')) : Promise.resolve({ '0-0': 'x' }),
            }),
          },
        },
        {
          provide: LayoutDesk,
          useValue: {
            settings: signal({ opensGround: true, brushMetres: 1.5 }),
            selected: signal([{ kind: 'mask', stratum: 'own', item: mask }]),
            notify: (text: string) => refused.push(text),
            commit: (label: string, operations: { field: string }[]) =>
              Promise.resolve(committed.push([label, ...operations.map(({ field }) => field)])),
          },
        },
      ],
    });
    const masks = TestBed.inject(MasksDesk);
    const points = [[1, 1] as const];
    await Promise.all([masks.draw(points, [1, 1], [1, 1], 0), masks.draw(points, [1, 1], [1, 1], 0)]);
    await masks.draw(points, [1, 1], [1, 1], 0);
    expect(refused).toEqual(['The stroke was not painted. the worker ended']);
    expect(committed).toEqual([
      ['open ground', 'tiles.0-0'],
      ['open ground', 'tiles.0-0'],
    ]);
  });
});
