import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { laidId, middleOfPoints, type SightResult, type Vector3 } from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { Help } from '../../../guide/help';

/** Says that a level is open to the outside, where, and between which blocks. */
@Component({
  selector: 'sv-way-out-card',
  imports: [Help],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="over">Open to the outside. The arrows show the shortest way out. <sv-help about="sight/open-to-the-outside" what="open to the outside" /></p>
    @if (text()) {
      <p>{{ text() }}</p>
      <button class="chip" (click)="went.emit(middle())">Go to the gap</button>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    p {
      margin: 0 0 6px;
    }
  `,
  host: { class: 'card' },
})
export class WayOutCard {
  private readonly openLevel = inject(OpenLevel);
  private readonly registry = inject(DocumentRegistry);
  readonly sight = input.required<Pick<SightResult, 'gap'>>();
  readonly went = output<Vector3>();

  readonly middle = computed(() => middleOfPoints(this.sight().gap?.polygons.flat() ?? []));
  readonly text = computed(() => {
    const { gap } = this.sight();
    if (!gap || gap.polygons.length === 0) return '';
    const [width, height] = gap.sizeMetres.map((value) => Math.round(value * 100) / 100);
    const names = gap.blocks.map((id) => this.nameOf(id));
    const between = names.length === 2 ? `, between ${names.join(' and ')}` : '';
    return gap.closes
      ? `A block in the gap of ${width} × ${height} m${between} would close the level.`
      : `Several ways lead out; this one goes through a gap of ${width} × ${height} m${between}.`;
  });

  /** Blocks that recipes, masks and assemblies make have no name of their own. */
  private nameOf(id: string): string {
    this.registry.contentVersion();
    for (const document of this.openLevel.strata()) {
      const block = document.tables.block.get(id);
      if (block) return block.name ? `“${block.name}”` : 'a block without a name';
      for (const wall of document.tables.wall.values())
        if (id.startsWith(laidId(wall.id, ''))) return wall.name ? `the wall “${wall.name}”` : 'a wall without a name';
    }
    return 'a generated block';
  }
}
