import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { PocketFigures } from '@stravel/core';
import { countText } from '../../../ui/amount';
import { ColumnSection } from '../../../level-desk/column-section';

/** The dearest pockets, worst first; a click stands in one, and opens what it is made of. */
@Component({
  selector: 'sv-worst-pockets',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="Worst pockets" about="sight/worst-pockets" what="worst pockets" note="calls, of limit">
    <ol>
      @for (pocket of pockets().slice(0, 8); track pocket.pocket) {
        <li>
          <button class="plain" [attr.aria-pressed]="pocket.pocket === standing()" (click)="went.emit(pocket)" (mouseenter)="hovered.emit(pocket.pocket)" (mouseleave)="hovered.emit(-1)" (focus)="hovered.emit(pocket.pocket)" (blur)="hovered.emit(-1)">
            <span>pocket {{ pocket.pocket + 1 }}</span>
            <span class="figure">{{ text(pocket.triangles) }}</span>
            <span class="figure soft">{{ pocket.drawCalls }}</span>
            <span class="figure" [class.over]="isOver(pocket)">{{ ofLimit(pocket) }}</span>
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
    </sv-section>
  `,
  styles: `
    ol,
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    button {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto 34px 62px;
      gap: 8px;
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
})
export class WorstPockets {
  readonly pockets = input.required<readonly PocketFigures[]>();
  readonly standing = input(-1);
  /** Triangles that the device allows; undefined without a device. */
  readonly limit = input<number>();
  readonly went = output<PocketFigures>();
  /** Pocket that is pointed at, −1 for none. */
  readonly hovered = output<number>();
  readonly text = countText;

  isOver({ triangles }: PocketFigures): boolean {
    const limit = this.limit();
    return limit !== undefined && triangles > limit;
  }

  ofLimit({ triangles }: PocketFigures): string {
    const limit = this.limit();
    if (limit === undefined) return '';
    const over = Math.round((triangles / limit - 1) * 100);
    return over > 0 ? `▲ +${over} %` : `${over === 0 ? '±0' : over} %`.replace('-', '−');
  }
}
