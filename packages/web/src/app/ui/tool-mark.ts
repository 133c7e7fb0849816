import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Mark, type MarkForm } from './mark';
import { TOOL_MARKS, type ToolMarkName } from './tool-marks';

/** The mark of a tool, or of what it makes. */
@Component({
  selector: 'sv-tool-mark',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<sv-mark [form]="form()" [box]="20" [pixels]="18" />`,
})
export class ToolMarkDrawing {
  readonly mark = input.required<ToolMarkName>();
  readonly form = computed((): MarkForm => TOOL_MARKS[this.mark()]);
}
