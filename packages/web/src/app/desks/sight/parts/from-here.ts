import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { countText } from '../../../ui/amount';
import { Help } from '../../../guide/help';

/** One line of the card: a count and its share. */
export interface FromHereRow {
  readonly name: string;
  readonly value: number;
  readonly share: number;
  readonly tone: 'stone' | 'brine' | 'kiln';
}

/** What is seen from where one stands, all round. */
@Component({
  selector: 'sv-from-here',
  imports: [Help],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2>From here</h2> <sv-help about="sight/from-here" what="from here" /></header>
    <p class="mono soft">{{ where() }}</p>
    <dl>
      @for (row of rows(); track row.name) {
        <dt>{{ row.name }}</dt>
        <dd class="bar"><i [class]="row.tone" [style.width.%]="row.share * 100"></i></dd>
        <dd class="figure">{{ text(row.value) }}</dd>
      }
    </dl>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    dl {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr) auto;
      gap: 6px 12px;
      align-items: center;
      margin: 6px 0 0;
    }
    dd {
      margin: 0;
    }
    .bar {
      height: 8px;
      background: color-mix(in srgb, var(--line) 45%, transparent);
    }
    .bar i {
      display: block;
      height: 100%;
    }
    .stone {
      background: var(--role-light);
    }
    .brine {
      background: var(--brine);
    }
    .kiln {
      background: var(--kiln);
    }
  `,
  host: { class: 'card' },
})
export class FromHere {
  readonly where = input.required<string>();
  readonly rows = input.required<readonly FromHereRow[]>();
  readonly text = countText;
}
