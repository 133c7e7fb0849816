import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  BLOCK_SIGHTS,
  MARKER_KINDS,
  type Block,
  type Json,
  type Marker,
  type Piece,
  type Placement,
  type Vector3,
  type Volume,
} from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { sizeOfItem, type PlacedItem } from '../../editing/item-edits';

/** A change asked for in the card. */
export interface CardChange {
  readonly field: string;
  readonly value: Json;
  /** Index of the one number of a vector that changes; undefined sets the whole field. */
  readonly axis?: number;
}

const AXES = ['x', 'y', 'z'] as const;

/** Exact numbers of one item. */
@Component({
  selector: 'sv-item-card',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ title() }}</h2>
      <span class="soft">{{ block() ? block()?.planes?.length + ' planes · ' : '' }}{{ stratumName() }}</span>
    </header>
    <div class="rows">
      @for (row of vectors(); track row.field) {
        <span>{{ row.name }}</span>
        @for (axis of axes; track axis; let k = $index) {
          <sv-number-field [label]="row.name + ' ' + row.axes[k]" [value]="row.value[k]" [least]="row.least" [disabled]="disabled()" (kept)="vectorKept(row.field, k, $event)" />
        }
      }
    </div>
    @if (block(); as block) {
      <div class="pair">
        <label>Name <input #name class="cell" [value]="block.name" maxlength="200" [disabled]="disabled()" (change)="changed.emit({ field: 'name', value: name.value })" /></label>
        <label
          >Sight
          <select #sight class="cell" [disabled]="disabled()" (change)="changed.emit({ field: 'sight', value: sight.value })">
            @for (one of sights; track one) {
              <option [selected]="one === block.sight">{{ one }}</option>
            }
          </select>
        </label>
        <label
          >Faces
          <input
            #material
            class="cell"
            [value]="block.material"
            maxlength="60"
            [disabled]="disabled()"
            (change)="material.value.trim() && changed.emit({ field: 'material', value: material.value.trim() })"
        /></label>
      </div>
    }
    @if (volume(); as volume) {
      <div class="pair">
        <label>Name <input #name class="cell" [value]="volume.name" maxlength="200" [disabled]="disabled()" (change)="changed.emit({ field: 'name', value: name.value })" /></label>
      </div>
    }
    @if (marker(); as marker) {
      <div class="pair">
        <label
          >Kind
          <select #kind class="cell" [disabled]="disabled()" (change)="changed.emit({ field: 'kind', value: kind.value })">
            @for (one of kinds; track one) {
              <option [selected]="one === marker.kind">{{ one }}</option>
            }
          </select>
        </label>
        <span class="field"
          >Faces <sv-number-field label="Direction in degrees" [value]="marker.turn" [disabled]="disabled()" (kept)="changed.emit({ field: 'turn', value: $event })"
        /></span>
      </div>
    }
  `,
  styleUrl: './item-card.scss',
  host: { class: 'card' },
})
export class ItemCard {
  readonly item = input.required<PlacedItem>();
  readonly piece = input<Piece>();
  readonly stratumName = input('');
  readonly disabled = input(false);
  readonly changed = output<CardChange>();
  readonly resized = output<{ readonly axis: number; readonly metres: number }>();

  readonly axes = AXES;
  readonly sights = BLOCK_SIGHTS;
  readonly kinds = MARKER_KINDS;
  readonly block = computed(() => (this.item().kind === 'block' ? (this.item().item as Block) : undefined));
  readonly placement = computed(() => (this.item().kind === 'placement' ? (this.item().item as Placement) : undefined));
  readonly marker = computed(() => (this.item().kind === 'marker' ? (this.item().item as Marker) : undefined));
  readonly volume = computed(() => (this.item().kind === 'volume' ? (this.item().item as Volume) : undefined));
  readonly title = computed(() => {
    const block = this.block();
    if (block) return `Block${block.name ? ` “${block.name}”` : ''}`;
    const marker = this.marker();
    if (marker) return `Marker · ${marker.kind}`;
    const volume = this.volume();
    if (volume) return `Volume${volume.name ? ` “${volume.name}”` : ''}`;
    return this.placement() ? (this.piece()?.name ?? 'Unknown piece') : 'Divider';
  });
  readonly vectors = computed(() => {
    const { kind, item } = this.item();
    if (kind === 'divider') return [];
    const xyz = ['x', 'y', 'z'];
    const placed = item as Block | Placement | Marker;
    const rows: { field: string; name: string; axes: string[]; value: Vector3; least: number }[] = [
      { field: 'position', name: 'Place', axes: xyz, value: placed.position, least: -100000 },
    ];
    if (kind !== 'marker')
      rows.push({
        field: 'turn',
        name: 'Turn',
        axes: ['yaw', 'pitch', 'roll'],
        value: (placed as Block).turn as unknown as Vector3,
        least: -36000,
      });
    const size = this.size();
    if (size) rows.push({ field: 'size', name: 'Size', axes: xyz, value: size, least: 0.001 });
    return rows;
  });
  private readonly size = computed((): Vector3 | undefined => {
    return sizeOfItem(this.item(), this.piece());
  });

  vectorKept(field: string, axis: number, number: number): void {
    if (field === 'size') this.resized.emit({ axis, metres: number });
    else this.changed.emit({ field, value: number, axis });
  }
}
