import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ItemKind, StratumContent } from '@stravel/core';
import { LayoutDesk } from '../editing/layout-desk';
import { SelectionBar } from '../selecting/selection-bar';
import { SelectionSide } from '../selecting/selection-side';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from './layout-bed';

/** The side that shows the one thing that is selected, and a person's hands on it. */
export interface SelectionSideBed extends LayoutBed {
  readonly element: HTMLElement;
  readonly heading: () => string | undefined;
  /** What stands in a field; undefined where there is none. */
  readonly value: (label: string) => string | undefined;
  readonly labels: () => string[];
  /** What the bar offers. */
  readonly buttons: () => (string | undefined)[];
  /** Texts of what tells a state. */
  readonly states: () => string[];
  /** After what was done is drawn. */
  readonly shown: () => Promise<unknown>;
  readonly type: (label: string, value: string) => Promise<void>;
  readonly change: (selector: string, value: string) => Promise<void>;
  readonly press: (text: string) => Promise<void>;
  /** Presses what stands in the menu of the rest. */
  readonly choose: (text: string) => Promise<void>;
}

/** The card with its actions, as they stand in the right column. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'sv-side-bed',
  imports: [SelectionBar, SelectionSide],
  template: `
    <sv-selection-side />
    <sv-selection-bar [selected]="desk.selected()" />
  `,
})
class SideBed {
  readonly desk = inject(LayoutDesk);
}

/** The side of the first thing of a kind that some content holds. */
export async function selectionSide(
  kind: ItemKind,
  content: Partial<StratumContent>,
  options: LayoutBedOptions = {},
): Promise<SelectionSideBed> {
  const bed = layoutBed({ ...options, content });
  const id = [...bed.document.itemsOf(kind)][0].id;
  bed.desk.select([{ stratum: 'st', kind, id }]);
  const fixture = TestBed.createComponent(SideBed);
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  const find = <E extends HTMLElement>(selector: string): E => {
    const found = element.querySelector<E>(selector);
    if (!found) throw new Error(`there is no ${selector}`);
    return found;
  };
  const texts = (selector: string): string[] =>
    [...element.querySelectorAll(selector)].map(({ textContent }) => textContent.replace(/\s+/g, ' ').trim());
  const done = async (): Promise<void> => {
    await bed.settled();
    await fixture.whenStable();
  };
  const press = async (text: string, within = element): Promise<void> => {
    const button = [...within.querySelectorAll<HTMLButtonElement>('button')].find(
      (one) => (one.getAttribute('aria-label') ?? one.textContent.trim()) === text,
    );
    if (!button) throw new Error(`there is no button ${text}`);
    button.click();
    await done();
  };
  return {
    ...bed,
    element,
    heading: () => element.querySelector('h2')?.textContent,
    value: (label) => element.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`)?.value,
    labels: () => bed.commits.map(({ label }) => label),
    buttons: () => texts('[role=toolbar] button'),
    states: () => texts('[role=status]'),
    shown: () => fixture.whenStable(),
    type: async (label, value) => {
      const box = find<HTMLInputElement>(`input[aria-label="${label}"]`);
      box.value = value;
      box.dispatchEvent(new Event('input'));
      box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await done();
    },
    change: async (selector, value) => {
      const box = find<HTMLInputElement | HTMLSelectElement>(selector);
      box.value = value;
      box.dispatchEvent(new Event('change'));
      await done();
    },
    press,
    choose: async (text) => {
      await press('More');
      await press(text, document.body);
    },
  };
}
