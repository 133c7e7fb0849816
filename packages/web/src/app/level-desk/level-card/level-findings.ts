import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { SEVERITY_RANKS, counted, type Finding } from '@stravel/core';
import { FindingPlaces } from '../../desk/finding-places';
import { FindingsHome } from '../../findings/findings-home';
import { ColumnSection } from '../column-section';

const MOST_FINDINGS = 6;

/** What was found in a level, errors first. A finding leads to its place. */
@Component({
  selector: 'sv-level-findings',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="Findings here" [note]="note()">
      @for (finding of shown(); track finding.id) {
        <button class="plain finding" [class.over]="finding.severity === 'error'" [title]="finding.why" (click)="go(finding)">
          {{ finding.severity === 'error' ? '▲' : '△' }} {{ finding.message }}
        </button>
      } @empty {
        <p class="soft">Nothing was found by the checks that have run.</p>
      }
      @if (found().length > shown().length) {
        <p class="soft">and {{ found().length - shown().length }} more in Findings</p>
      }
    </sv-section>
  `,
  styles: `
    :host {
      display: contents;
    }
    .finding {
      padding: 3px 0;
      line-height: 1.35;
    }
  `,
})
export class LevelFindings {
  private readonly findings = inject(FindingsHome);
  private readonly places = inject(FindingPlaces);
  /** Id of the level. */
  readonly level = input.required<string>();
  readonly found = computed((): readonly Finding[] =>
    this.findings
      .open()
      .filter(({ place }) => place.level === this.level())
      .sort((a, b) => SEVERITY_RANKS[a.severity] - SEVERITY_RANKS[b.severity]),
  );
  readonly shown = computed(() => this.found().slice(0, MOST_FINDINGS));
  readonly note = computed(() => (this.found().length === 0 ? 'none' : counted(this.found().length, 'finding')));

  go(finding: Finding): void {
    void this.places.go(finding);
  }
}
