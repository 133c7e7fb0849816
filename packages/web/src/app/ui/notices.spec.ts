import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Notices } from './notices';

describe('a notice', () => {
  const shown = (): HTMLElement | null => document.querySelector('mat-snack-bar-container');
  /** Shows what was begun. */
  const drawn = async (): Promise<void> => {
    await new Promise((resolve) => setTimeout(resolve));
    TestBed.tick();
  };
  afterEach(() => TestBed.inject(MatSnackBar).dismiss());

  it('stands until it is closed', async () => {
    TestBed.inject(Notices).show('The address is copied.');
    await drawn();
    expect(shown()?.textContent).toContain('The address is copied.');
    expect(shown()?.querySelector('button')?.textContent.trim()).toBe('Close');
  });

  it('says whether its button was pressed', async () => {
    const taken = TestBed.inject(Notices).offer('Game is in the bin.', 'Restore', 0);
    await drawn();
    shown()?.querySelector('button')?.click();
    expect(await taken).toBe(true);
    const left = TestBed.inject(Notices).offer('Game is in the bin.', 'Restore', 0);
    await drawn();
    TestBed.inject(MatSnackBar).dismiss();
    expect(await left).toBe(false);
  });
});
