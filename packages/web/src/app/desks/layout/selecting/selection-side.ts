import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  linkLookup,
  type Item,
  type ItemKind,
  type Json,
  type Knot,
  type Link,
  type Marker,
  type Path,
  type Placement,
  type Volume,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { setField } from '../../../edits/operations';
import { ArrangeDesk } from '../arrange/arrange-desk';
import { AssembliesDesk } from '../kinds/assembly/assemblies-desk';
import { AssemblyCard } from '../kinds/assembly/assembly-card';
import { BlocksDesk } from '../kinds/block/blocks-desk';
import { LAYOUT_KINDS, refOf } from '../editing/item-edits';
import { LayoutDesk } from '../editing/layout-desk';
import { LinksDesk } from '../links/links-desk';
import { MaskCard } from '../kinds/mask/mask-card';
import { ItemCard } from '../kinds/own-values/item-card';
import { ItemList, type ItemLine } from '../parts/item-list';
import { PathCard } from '../kinds/path/path-card';
import { PathsDesk } from '../kinds/path/paths-desk';
import type { ItemRef } from '../store/layout-store';
import { TileCard } from '../kinds/tile-floor/tile-card';
import { kindGroups, ownValueRows } from '../kinds/own-values/item-kinds';
import { KindCard } from '../kinds/own-values/kind-card';
import { SelectDesk } from './select-desk';
import {
  ARRANGE_COMMANDS,
  ASSEMBLY_COMMANDS,
  BLOCK_COMMANDS,
  PATH_COMMANDS,
  SelectionBar,
  type SelectionCommand,
} from './selection-bar';

const isOneOf = <T extends string>(commands: readonly T[], command: string): command is T =>
  (commands as readonly string[]).includes(command);

/** What is selected, in numbers, with what can be done with it; and all that stands in the stratum. */
@Component({
  selector: 'sv-selection-side',
  imports: [AssemblyCard, ItemCard, ItemList, KindCard, MaskCard, PathCard, SelectionBar, TileCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (one(); as item) {
      @if (path(); as path) {
        <sv-path-card [path]="path" [disabled]="isLocked()" (named)="change('name', $event)" (knotsSet)="setKnots($event)" />
      } @else if (item.kind === 'tileFloor') {
        <sv-tile-card />
      } @else if (item.kind === 'mask') {
        <sv-mask-card />
      } @else if (item.kind === 'assembly') {
        <sv-assembly-card />
      } @else {
        <sv-item-card
          [item]="item"
          [piece]="piece()"
          [stratumName]="desk.tables().stratum[item.stratum].name"
          [disabled]="isLocked()"
          (changed)="desk.change(item, $event)"
          (resized)="desk.resize(item, $event.axis, $event.metres)"
        />
      }
      @if (hasKindCard()) {
        <sv-kind-card
          [item]="item"
          [groups]="kinds()"
          [rows]="rows()"
          [lookup]="lookup()"
          [links]="links.lines()"
          [disabled]="isLocked()"
          (changed)="change($event.field, $any($event.value))"
          (linkOpened)="links.edit($event)"
          (linkDeleted)="links.delete($event)"
        />
      }
    } @else if (desk.selected().length > 1) {
      <p class="card">{{ desk.selected().length }} things selected. Arrow keys move them, Q and E turn them.</p>
    }
    <sv-selection-bar [kinds]="selectedKinds()" [saved]="select.names()" (asked)="do($event)" (savedPicked)="select.take($event)" />
    @if (desk.activeStratum(); as stratum) {
      <sv-item-list [title]="stratum.name" [items]="listed()" [selected]="selectedIds()" [describe]="describe()" (picked)="desk.pick($event.item, $event.add)" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class SelectionSide {
  private readonly registry = inject(DocumentRegistry);
  private readonly arrange = inject(ArrangeDesk);
  private readonly assemblies = inject(AssembliesDesk);
  private readonly blocks = inject(BlocksDesk);
  private readonly paths = inject(PathsDesk);
  readonly links = inject(LinksDesk);
  readonly select = inject(SelectDesk);
  readonly desk = inject(LayoutDesk);

  readonly one = computed(() => (this.desk.selected().length === 1 ? this.desk.selected()[0] : undefined));
  readonly path = computed(() => (this.one()?.kind === 'path' ? (this.one()?.item as Path) : undefined));
  readonly piece = computed(() => {
    const one = this.one();
    return one?.kind === 'placement' ? this.desk.openLevel.pieces()[(one.item as Placement).piece] : undefined;
  });
  readonly isLocked = computed(() => {
    const one = this.one();
    return one !== undefined && this.desk.isItemLocked(refOf(one));
  });
  readonly hasKindCard = computed(() => ['volume', 'marker', 'placement'].includes(this.one()?.kind ?? ''));
  readonly kinds = computed(() => {
    const kind = this.one()?.kind;
    return kind === 'volume' || kind === 'marker' ? kindGroups(this.desk.tables(), kind) : [];
  });
  readonly rows = computed(() => {
    const one = this.one();
    if (one?.kind === 'volume')
      return ownValueRows(this.desk.tables(), (one.item as Volume).kind, (one.item as Volume).values);
    return one?.kind === 'marker'
      ? ownValueRows(this.desk.tables(), (one.item as Marker).entry, (one.item as Marker).values)
      : [];
  });
  readonly lookup = computed(() => linkLookup(this.desk.tables()));
  readonly selectedKinds = computed((): ItemKind[] => this.desk.selected().map(({ kind }) => kind));
  readonly selectedIds = computed((): ReadonlySet<string> => new Set(this.desk.state().selection.map(({ id }) => id)));
  readonly listed = computed((): readonly ItemRef[] => this.listItems());
  /** Reads an item anew for each row that is in view; a new function after every change. */
  readonly describe = computed(() => {
    this.registry.contentVersion();
    return (item: ItemRef): ItemLine => this.describeItem(item);
  });

  do(command: SelectionCommand): void {
    if (isOneOf(ARRANGE_COMMANDS, command)) void this.arrange.do(command);
    else if (isOneOf(BLOCK_COMMANDS, command)) void this.blocks.do(command);
    else if (isOneOf(PATH_COMMANDS, command)) void this.paths.do(command);
    else if (isOneOf(ASSEMBLY_COMMANDS, command)) void this.assemblies.do(command);
    else {
      const commands: Record<
        Exclude<
          SelectionCommand,
          | (typeof ARRANGE_COMMANDS)[number]
          | (typeof BLOCK_COMMANDS)[number]
          | (typeof PATH_COMMANDS)[number]
          | (typeof ASSEMBLY_COMMANDS)[number]
        >,
        () => unknown
      > = {
        duplicate: () => this.desk.duplicate(),
        turn: () => this.desk.turn(15),
        delete: () => this.desk.delete(),
        link: () => this.links.add(),
        find: () => this.select.find(),
        similar: () => this.select.similar(),
        invert: () => this.select.invert(),
        keep: () => this.select.keep(),
      };
      commands[command]();
    }
  }

  change(field: string, value: Json): void {
    const one = this.one();
    if (one)
      void this.desk.commit(`${field.replace(/^values\./, '')} of a ${one.kind}`, [
        setField(one.stratum, one.kind, one.item, field, value),
      ]);
  }

  setKnots(knots: readonly Knot[]): void {
    const one = this.one();
    if (one) void this.paths.setKnots(one, 'knots of a path', knots);
  }

  private listItems(): ItemRef[] {
    this.registry.contentVersion();
    const document = this.desk.openLevel.strata().find(({ id }) => id === this.desk.activeStratum()?.id);
    if (!document) return [];
    const ref = (kind: ItemKind, id: string): ItemRef => ({ stratum: document.id, kind, id });
    const others = LAYOUT_KINDS.filter((kind) => kind !== 'placement' && kind !== 'link').flatMap((kind) =>
      [...document.itemsOf(kind)].map(({ id }) => ref(kind, id)),
    );
    const placements: ItemRef[] = [];
    for (let slot = 0; slot < document.tables.placement.slotCount; slot++) {
      const id = document.tables.placement.idAt(slot);
      if (id !== undefined) placements.push(ref('placement', id));
    }
    return [...others, ...placements];
  }

  private describeItem({ stratum, kind, id }: ItemRef): ItemLine {
    const item = this.desk.openLevel.stratum(stratum)?.item(kind, id);
    if (!item) return { name: '', where: '' };
    const [x, y, z] =
      'from' in item
        ? [item.from[0], item.bottom, item.from[1]]
        : 'knots' in item
          ? item.knots[0].position
          : 'position' in item
            ? item.position
            : [0, 0, 0];
    return { name: this.nameOf(kind, item), where: `${x.toFixed(1)}, ${y.toFixed(1)}, ${z.toFixed(1)}` };
  }

  private nameOf(kind: ItemKind, item: Exclude<Item, Link> | Link): string {
    if (kind === 'placement' && 'piece' in item)
      return this.desk.openLevel.pieces()[item.piece as string]?.name ?? 'unknown piece';
    if (kind === 'assembly' && 'assembly' in item) return this.assemblies.nameOf(item.assembly);
    if (kind === 'marker' && 'kind' in item) return String(item.kind);
    return 'name' in item && item.name !== '' ? item.name : kind;
  }
}
