import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { Addresses } from '../addresses';
import { recordsFeature } from '../document/records/records-store';
import { nearest } from './nearest';

const OFFERED = 4;

/** Says that an address leads nowhere, and offers what is most like it. */
@Component({
  selector: 'sv-dead-address',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="alert">
      <h2>
        {{ key() ? 'No level has the key “' + key() + '”' : levels().length === 0 && isLevelDesk() ? 'This collection has no levels yet' : 'There is nothing at this address' }}
      </h2>
      @if (levels().length > 0) {
        <p>{{ key() ? 'It may have been deleted, or its key was changed. The nearest levels:' : 'The nearest levels:' }}</p>
        <ul>
          @for (level of offered(); track level.id) {
            <li>
              <a [routerLink]="addresses.path(['/' + desk(), level.id])">{{ level.name }}</a> <span class="mono soft">{{ level.key }}</span>
            </li>
          }
        </ul>
      } @else if (isLevelDesk()) {
        <p>New level on the Sets desk makes the first one.</p>
      }
      <p><a [routerLink]="addresses.path(['/sets'])">All levels</a> · <a routerLink="/">All collections</a></p>
    </div>
  `,
  styles: `
    div {
      max-width: 520px;
      margin: 80px auto;
      display: grid;
      gap: 12px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
      display: grid;
      gap: 6px;
    }
    li {
      display: flex;
      align-items: baseline;
      gap: 10px;
    }
    a {
      color: var(--brine);
    }
  `,
})
export class DeadAddress {
  /** Key that no level has; undefined for an address of anything else. */
  readonly key = input<string>();
  readonly addresses = inject(Addresses);
  private readonly url = inject(Router).url;
  readonly levels = inject(Store).selectSignal(recordsFeature.selectLevels);
  readonly isLevelDesk = computed(() => this.addresses.isOfLevel(this.addresses.desk()));
  readonly desk = computed(() => (this.isLevelDesk() ? this.addresses.desk() : 'layout'));
  readonly offered = computed(() =>
    nearest(this.levels(), this.key() ?? this.url.split('/').at(-1) ?? '', ({ key }) => key, OFFERED),
  );
}
