import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { PocketFigures } from '@stravel/core';
import { countText } from '../../../ui/amount';
import { Help } from '../../../guide/help';

/** The dearest pockets, worst first; a click stands in one, and opens what it is made of. */
@Component({
  selector: 'sv-worst-pockets',
  imports: [Help],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2>Worst pockets</h2> <sv-help about="sight/worst-pockets" what="worst pockets" /></header>
    <ol>
      @for (pocket of pockets().slice(0, 8); track pocket.pocket) {
        <li>
          <button class="plain" [attr.aria-pressed]="pocket.pocket === standing()" (click)="went.emit(pocket)">
            <span>pocket {{ pocket.pocket + 1 }}</span>
            <span class="figure" [class.over]="pocket.triangles > limit()">{{ text(pocket.triangles) }} tri</span>
            <span class="figure soft">{{ pocket.drawCalls }} calls</span>
          </button>
          @if (pocket.pocket === standing()) {
            <ul>
              @for (cause of pocket.causes.slice(0, 5); track cause.what + cause.id) {
                <li class="cause">
                  <span>{{ cause.count }} × {{ cause.name }}{{ cause.what === 'blocks' ? ' blocks' : '' }}</span
                  ><span class="figure">{{ text(cause.triangles) }}</span>
                </li>
              }
            </ul>
          }
        </li>
      }
    </ol>
  `,
  styles: `
    ol,
    ul {
      list-style: none;
      margin: 6px 0 0;
      padding: 0;
    }
    button {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto 70px;
      gap: 10px;
      width: 100%;
      padding: 4px;
      border-bottom: 1px solid var(--line);
      text-align: left;
    }
    button[aria-pressed='true'] {
      background: var(--brine-wash);
    }
    .figure {
      text-align: right;
    }
    .cause {
      display: flex;
      justify-content: space-between;
      padding: 2px 4px 2px 14px;
      color: var(--soft-ink);
    }
  `,
  host: { class: 'card' },
})
export class WorstPockets {
  readonly pockets = input.required<readonly PocketFigures[]>();
  readonly standing = input(-1);
  readonly limit = input(Infinity);
  readonly went = output<PocketFigures>();
  readonly text = countText;
}
