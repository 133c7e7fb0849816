import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { DeskFrame } from '../desk/desk-frame';
import { SheetHost } from './sheet-host';
import { Sheet, Sheets } from './sheets';

@Component({ changeDetection: ChangeDetectionStrategy.OnPush, template: `<p>{{ data }}</p>` })
class Note extends Sheet<string, number> {}

function bed(isRightOpen = true): { sheets: Sheets; text: () => Promise<string>; folds: () => number } {
  const [open, folds] = [signal(isRightOpen), signal(0)];
  TestBed.configureTestingModule({
    providers: [
      Sheets,
      {
        provide: DeskFrame,
        useValue: {
          isRightOpen: open,
          foldRight: () => {
            folds.update((n) => n + 1);
            open.update((is) => !is);
          },
        },
      },
    ],
  });
  const fixture = TestBed.createComponent(SheetHost);
  return {
    sheets: TestBed.inject(Sheets),
    folds,
    text: async () => {
      await fixture.whenStable();
      return (fixture.nativeElement as HTMLElement).textContent;
    },
  };
}

describe('sheets of the right column', () => {
  it('show one at a time; another, or going back, leaves the first without an answer', async () => {
    const { sheets, text } = bed();
    const first = sheets.open(Note, 'first');
    expect(await text()).toBe('first');
    const second = sheets.open(Note, 'second');
    expect([await first, await text()]).toEqual([undefined, 'second']);
    sheets.close();
    expect([await second, await text(), sheets.shown()]).toEqual([undefined, '', undefined]);
  });

  it('answer, and unfold the column that they stand in', async () => {
    const { sheets, folds } = bed(false);
    const asked = sheets.open(Note, 'how many?');
    expect(folds()).toBe(1);
    sheets.shown()?.leave(3);
    expect([await asked, sheets.shown()]).toEqual([3, undefined]);
  });
});
