import { Injectable, Injector, inject, runInInjectionContext } from '@angular/core';
import { Store } from '@ngrx/store';
import { Addresses } from '../../../addresses';
import { Commands } from '../../../desk/commands';
import { isMade } from '../../../document/level/level-sections';
import type { PlateMenu } from '../../../plate/plate-drawing';
import type { MenuEntry } from '../../../ui/context-menus';
import { LayoutDesk } from '../editing/layout-desk';
import type { PlacedItem } from '../editing/placed-item';
import { ASSEMBLY_MENU } from '../kinds/assembly/desk';
import type { SelectionCommand } from '../kinds/item-desk';
import { LAYOUT_DESK } from '../manifest';
import { layoutActions, type ItemRef } from '../store/layout-store';
import { TOOL_COMMANDS } from '../store/layout-tools';
import { SelectDesk } from './select-desk';
import { commandsFor, menusFor } from './selection-menus';

/** What the context menus of the desk offer: the commands of the selection's bar and of the list of keys. */
@Injectable()
export class ContextEntries {
  private readonly injector = inject(Injector);
  private readonly store = inject(Store);
  private readonly addresses = inject(Addresses);
  private readonly commands = inject(Commands);
  private readonly desk = inject(LayoutDesk);
  private readonly selecting = inject(SelectDesk);

  /** The menu of a place on plan or model: what lies there is selected first, unless it is already. */
  ofPlate({ hits }: PlateMenu): MenuEntry[] {
    if (hits) {
      const found = hits().filter((item) => !isMade(item.stratum) && !this.desk.isItemLocked(item));
      const { selection } = this.desk.state();
      if (!found.some(({ id }) => selection.some((ref) => ref.id === id))) this.desk.pick(found.at(0), false);
    }
    return this.ofSelection();
  }

  /** The menu of a line of the contents. */
  ofItem(item: ItemRef): MenuEntry[] {
    if (!this.desk.state().selection.some(({ id }) => id === item.id)) this.desk.pick(item, false);
    return this.ofSelection();
  }

  ofPiece(id: string): MenuEntry[] {
    const place: MenuEntry = { text: 'Place it', run: () => this.store.dispatch(layoutActions.pieceChosen({ id })) };
    // Assemblies are in the strip, too.
    if (!Object.hasOwn(this.desk.tables().piece, id)) return [place];
    return [
      place,
      { text: 'Select all of it here', run: () => this.selecting.uses(`piece ${id}`) },
      { text: 'Open in Detail', run: () => this.addresses.go(['/detail'], { piece: id }), isFirstOfGroup: true },
    ];
  }

  private ofSelection(): MenuEntry[] {
    const selected = this.desk.selected();
    const all = this.commands.entries(LAYOUT_DESK, ['select-all', 'frame']);
    if (selected.length === 0)
      return [
        {
          text: 'Draw',
          entries: this.commands.entries(
            LAYOUT_DESK,
            TOOL_COMMANDS.map(({ id }) => id),
          ),
        },
        ...all,
      ];
    const { more } = commandsFor(selected);
    const menus = [...menusFor(selected), ASSEMBLY_MENU];
    const [duplicate, remove] = this.commands.entries(LAYOUT_DESK, ['duplicate', 'delete']);
    return [
      duplicate,
      ...more.map((command) => this.entry(command, selected)),
      ...menus.map(({ label, commands }): MenuEntry => ({
        text: label,
        entries: commands.map((command) => this.entry(command, selected)),
      })),
      {
        text: 'Select similar',
        isDisabled: selected.length !== 1,
        run: () => this.selecting.similar(),
        isFirstOfGroup: true,
      },
      ...this.commands.entries(LAYOUT_DESK, ['select-all', 'invert', 'frame']),
      { ...remove, isFirstOfGroup: true },
    ];
  }

  private entry({ text, isFor, make }: SelectionCommand, selected: readonly PlacedItem[]): MenuEntry {
    return { text, isDisabled: !isFor(selected), run: () => runInInjectionContext(this.injector, make)() };
  }
}
