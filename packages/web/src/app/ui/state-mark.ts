import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Mark, type MarkForm } from './mark';

interface StateForm extends MarkForm {
  /** Class of its colour. */
  readonly tone: string;
}

/** States by their form, in a square of 12: never told by colour alone. */
const FORMS = {
  over: { filled: 'M6 1.5 11.2 10.5H.8z', tone: 'over' },
  near: { lines: 'M6 2 10.8 10.3H1.2z', tone: 'near' },
  bound: { lines: 'M1.5 1.5h9v9h-9zM1.5 6 6 1.5M1.5 10.5l9-9M6 10.5 10.5 6', tone: '' },
  'not known': { lines: 'M1.5 1.5h9v9h-9z', dashes: '1.6 1.5', tone: '' },
  stale: { lines: 'M1 2.5h10M1 6h7M1 9.5h4', tone: 'near' },
  ready: { lines: 'M2 2h8v8H2z', tone: 'good' },
  'not ready': { lines: 'M2 2h8v8H2z', dashes: '5 2.2', tone: 'near' },
} as const satisfies Readonly<Record<string, StateForm>>;

export type StateMarkName = keyof typeof FORMS;

/** The mark of a state, in the colour of its kind. */
@Component({
  selector: 'sv-state-mark',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<sv-mark [class]="form().tone" [form]="form()" [box]="12" [pixels]="12" />`,
})
export class StateMark {
  readonly of = input.required<StateMarkName>();
  readonly form = computed((): StateForm => FORMS[this.of()]);
}
