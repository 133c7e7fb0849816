import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { LayoutDesk } from '../editing/layout-desk';
import { TOOL_FAMILIES } from '../tools/tool-families';

/** What to do with the tool in hand; with none, what the marks of the plan mean. */
@Component({
  selector: 'sv-layout-meaning',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (hint(); as text) {
      <span>{{ text }}</span>
    } @else {
      <svg viewBox="0 0 20 10" class="ink" aria-hidden="true"><path d="M0 5h20" stroke-width="4" /></svg><span>blocks view</span>
      <svg viewBox="0 0 20 10" class="ink" aria-hidden="true"><path d="M1 1h18v8H1z" stroke-dasharray="3 2" /></svg><span>does not</span>
      <svg viewBox="0 0 20 10" class="volume" aria-hidden="true"><path d="M1 3V1h4M15 1h4v2M19 7v2h-4M5 9H1V7" /></svg><span>volume</span>
      <svg viewBox="0 0 20 10" class="path" aria-hidden="true"><path d="M1 8C8 8 10 2 19 2" /></svg><span>path</span>
      <svg viewBox="0 0 20 10" class="link" aria-hidden="true"><path d="M1 8C8 1 12 1 19 8" stroke-dasharray="3 2" /></svg><span>link</span>
      <svg viewBox="0 0 12 10" class="marker" aria-hidden="true"><path d="M6 1l5 8H1z" /></svg><span>marker</span>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    svg {
      flex: none;
      width: 20px;
      height: 10px;
      margin-left: 6px;
      fill: none;
      stroke: var(--solid);
      stroke-width: 1.5;
    }
    .marker {
      width: 12px;
      stroke: var(--kiln);
    }
    .volume {
      stroke: var(--role-events);
    }
    .path {
      stroke: var(--near);
    }
    .link {
      stroke: var(--brine);
    }
  `,
})
export class LayoutMeaning {
  private readonly desk = inject(LayoutDesk);
  /** Selecting needs no word once it is known: it is told where nothing stands yet, and with its tool. */
  readonly hint = computed(() => {
    const { tool } = this.desk.state();
    if (tool === 'select') return undefined;
    return TOOL_FAMILIES.find(({ tools }) => Object.hasOwn(tools, tool))?.hint ?? DRAWING_HINT;
  });
}

const DRAWING_HINT = 'drag or click on the plan; Esc goes back to select';
