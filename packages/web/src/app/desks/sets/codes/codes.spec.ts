import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import type { Level } from '@stravel/core';
import { CodesDialog, type CodesChoice, type CodesData } from './codes-dialog';

const level = (id: string, code: string, purpose: Level['purpose'] = 'play'): Level =>
  ({ id, name: id, code, purpose }) as Level;
const levels = [level('a', 'KILN'), level('b', ''), level('c', 'kiln'), level('d', '', 'test'), level('e', 'Kiln')];

function dialog(chosen: readonly string[] = [], pattern = { alphabet: 'AB', length: 3 }) {
  const kept: CodesChoice[] = [];
  const data: CodesData = {
    tables: { level: Object.fromEntries(levels.map((one) => [one.id, one])) },
    pattern,
    levels,
    chosen: new Set(chosen),
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: MAT_DIALOG_DATA, useValue: data },
      { provide: MatDialogRef, useValue: { close: (choice: CodesChoice) => kept.push(choice) } },
    ],
  });
  const fixture = TestBed.createComponent(CodesDialog);
  fixture.detectChanges();
  return { one: fixture.componentInstance, element: fixture.nativeElement as HTMLElement, fixture, kept };
}

describe('codes of levels', () => {
  it('are for those that are chosen, those without, or those that clash; the first keeps its own', () => {
    const { one } = dialog(['d', 'a']);
    expect(one.groups().map(({ text }) => text)).toEqual([
      'the selected levels (2)',
      'play levels without a code (1)',
      'levels whose code another has (2)',
    ]);
    expect(one.levels().map(({ id }) => id)).toEqual(['a', 'd']);
    one.whom.set('clashing');
    expect(one.codes().map(({ level: { id } }) => id)).toEqual(['c', 'e']);
    for (const { code } of one.codes()) expect(code).toMatch(/^[AB]{3}$/);
    expect(new Set(one.codes().map(({ code }) => code)).size).toBe(2);
  });

  it('come from the pattern as it is typed, and none while it is of no use', () => {
    const { one, element, fixture } = dialog();
    expect([one.whom(), one.groups().length, one.count()]).toEqual(['without', 2, '8']);
    one.setPattern({ alphabet: 'A0O1' });
    one.dropLookAlikes();
    expect(one.pattern().alphabet).toBe('A');
    fixture.detectChanges();
    expect(element.querySelector('[role=alert]')?.textContent).toContain('at least two different characters');
    expect(one.codes()).toEqual([]);
  });

  it('say when the pattern has too few', () => {
    const { one, element, fixture } = dialog(['a', 'b', 'c', 'd', 'e'], { alphabet: 'AB', length: 2 });
    expect(one.codes()).toHaveLength(4);
    fixture.detectChanges();
    expect(element.querySelector('[role=alert]')?.textContent).toContain('only 4 free codes for 5 levels');
  });
});
