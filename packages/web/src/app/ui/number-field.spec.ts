import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { AskDialog, type AskData } from './ask-dialog';
import { NumberField } from './number-field';

@Component({
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<sv-number-field label="Width" [value]="value()" [least]="0.5" [most]="20" (kept)="kept.push($event)" (tried)="tried.push($event)" />`,
})
class Host {
  readonly value = signal<number | null>(2);
  readonly kept: number[] = [];
  readonly tried: (number | null)[] = [];
}

describe('a number field', () => {
  let fixture: ComponentFixture<Host>;
  let box: HTMLInputElement;

  beforeEach(async () => {
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    box = (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
  });

  const type = (text: string) => {
    box.value = text;
    box.dispatchEvent(new Event('input'));
  };
  const press = async (key: string) => {
    box.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await fixture.whenStable();
  };
  const leave = async () => {
    box.dispatchEvent(new Event('blur'));
    await fixture.whenStable();
  };
  const alert = () => (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent;

  it('keeps at Enter, and not once more when it is left before the new value has come back', async () => {
    type('4.5');
    await press('Enter');
    await leave();
    expect(fixture.componentInstance.kept).toEqual([4.5]);
  });

  it('keeps when it is left, takes a comma, and leaves alone what did not change', async () => {
    await leave();
    type('2');
    await leave();
    type('3,25');
    await leave();
    expect(fixture.componentInstance.kept).toEqual([3.25]);
  });

  it.each([
    ['wide', '“wide” is not a number.'],
    ['', '“” is not a number.'],
    ['1e999', '“1e999” is not a number.'],
    ['0.1', 'From 0.5 to 20.'],
    ['21', 'From 0.5 to 20.'],
  ])('says what is wrong with %j and keeps it typed', async (text, message) => {
    type(text);
    await press('Enter');
    expect(alert()).toBe(message);
    expect(box.value).toBe(text);
    expect(box.getAttribute('aria-invalid')).toBe('true');
    expect(fixture.componentInstance.kept).toEqual([]);
  });

  it('tells what it would be while it is typed, and that nothing is tried where that is not a number or taken back', async () => {
    for (const text of ['3', '3 + 0.5', '3 +', '30']) type(text);
    await press('Escape');
    await press('Escape');
    expect(fixture.componentInstance.tried).toEqual([3, 3.5, null, null, null]);
    expect(fixture.componentInstance.kept).toEqual([]);
  });

  it('goes back to what stands at Escape', async () => {
    type('wide');
    await press('Enter');
    await press('Escape');
    expect([box.value, alert()]).toEqual(['2', undefined]);
    await leave();
    expect(fixture.componentInstance.kept).toEqual([]);
  });

  it('shows a millionth at the most, and nothing for no value', async () => {
    fixture.componentInstance.value.set(1 / 3);
    await fixture.whenStable();
    expect(box.value).toBe('0.333333');
    fixture.componentInstance.value.set(null);
    await fixture.whenStable();
    expect(box.value).toBe('');
  });
});

describe('a dialog with numbers', () => {
  const data: AskData = {
    title: 'Grid',
    command: 'Make',
    questions: [{ key: 'columns', label: 'Columns', kind: 'number', value: 4, least: 1, most: 9 }],
  };

  it('is not agreed to while one is typed wrong: it says so, keeps the text and has the focus', async () => {
    const close = jest.fn();
    TestBed.configureTestingModule({
      providers: [
        { provide: MAT_DIALOG_DATA, useValue: data },
        { provide: MatDialogRef, useValue: { close } },
      ],
    });
    const fixture = TestBed.createComponent(AskDialog);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const box = (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
    const typed = (text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      fixture.componentInstance.agree();
    };
    typed('twelve');
    await fixture.whenStable();
    expect([
      close.mock.calls.length,
      box.value,
      document.activeElement,
      (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent,
    ]).toEqual([0, 'twelve', box, '“twelve” is not a number.']);
    typed('12');
    expect(close).not.toHaveBeenCalled();
    typed('7');
    expect(close).toHaveBeenCalledWith({ columns: 7 });
  });
});
