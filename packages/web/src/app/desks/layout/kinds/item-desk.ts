import { inject, type InputSignal, type ProviderToken, type Type } from '@angular/core';
import type { ItemKind } from '@stravel/core';
import type { PlacedItem } from '../editing/placed-item';
import type { ToolMarkName } from '../../../ui/tool-marks';
import type { Gesture } from '../plan/gesture';
import type { Grips } from '../plan/grips';
import type { LayoutTool } from '../store/layout-tools';

/** Shows one thing in numbers and changes it. It is made with the services of the desk. */
export interface ItemCard<K extends ItemKind> {
  readonly item: InputSignal<PlacedItem<K>>;
  /** Whether it can only be read. */
  readonly disabled: InputSignal<boolean>;
}

/** Something that can be done with what is selected. */
export interface SelectionCommand {
  readonly text: string;
  readonly isFor: (selected: readonly PlacedItem[]) => boolean;
  /** Called with the services of the desk at hand; what it gives is called when the command is chosen. */
  readonly make: () => () => unknown;
}

export interface SelectionMenu {
  readonly label: string;
  readonly commands: readonly SelectionCommand[];
}

/** A command that one of the desk's services does. */
export function command<S>(
  text: string,
  isFor: SelectionCommand['isFor'],
  service: ProviderToken<S>,
  run: (service: S) => unknown,
): SelectionCommand {
  const make = (): (() => unknown) => {
    const made = inject(service);
    return () => run(made);
  };
  return { text, isFor, make };
}

/** Takes things that are all of a kind, as many as are given. */
export function allOf(kind: ItemKind, least = 1, most = Infinity): SelectionCommand['isFor'] {
  return (selected) =>
    selected.length >= least && selected.length <= most && selected.every((one) => one.kind === kind);
}

/** Tools that stand in the tool line as one. */
export interface ToolFamily {
  /** What it is called, and its mark. */
  readonly label: ToolMarkName;
  /** What is set for them, shown while one is chosen; made with the services of the desk. */
  readonly options?: Type<unknown>;
  /** What to do with them. */
  readonly hint?: string;
  /** Makes the gesture of each, called with the services of the desk at hand. The first is chosen with the family. */
  readonly tools: { readonly [T in LayoutTool]?: () => Gesture };
}

/** A field of text or choice that is changed for many objects of a kind at once. */
export interface SharedField {
  readonly field: string;
  readonly label: string;
  readonly choices?: readonly { readonly value: string; readonly text: string }[];
  readonly mayBeEmpty?: true;
}

/** What the Layout desk has for a kind of item. One in each room; `ITEM_DESKS` lists them. */
export interface ItemDesk<K extends ItemKind> {
  /** Shows one that is selected; absent where nothing but its name is to be seen. */
  readonly card?: Type<ItemCard<K>>;
  /** What can be done when nothing but things of the kind is selected. */
  readonly menu?: SelectionMenu;
  /** What can be done with one, beside the menus. */
  readonly commands?: readonly SelectionCommand[];
  /** What is changed for many at once. */
  readonly shared?: readonly SharedField[];
  /** Makes the grips of one that is selected, called with the services of the desk at hand. */
  readonly grips?: () => Grips;
  readonly tools?: ToolFamily;
}
