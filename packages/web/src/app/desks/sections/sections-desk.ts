import { DestroyRef, Injectable, computed, inject } from '@angular/core';
import { Notices } from '../../ui/notices';
import { Store } from '@ngrx/store';
import {
  RECIPES,
  RECIPE_KINDS,
  RECORDS_DOCUMENT,
  newRecipe,
  parameterList,
  plainJson,
  recipeSpec,
  type Json,
  type Level,
  type Operation,
  type Pin,
  type Recipe,
  type RecipeKind,
  type Vector3,
} from '@stravel/core';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections } from '../../document/level/level-sections';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature, selectReach } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { create, newId, remove, setField, setRecordField } from '../../edits/operations';
import { SharedEdits } from '../../reach/shared-edits';
import { sectionsActions, sectionsFeature } from './store/sections-store';

/** A recipe with the stratum that holds it. */
export interface HeldRecipe {
  readonly stratum: string;
  readonly stratumName: string;
  readonly recipe: Recipe;
  readonly pins: readonly Pin[];
}

const SEED_WORDS = [
  'amber',
  'birch',
  'cedar',
  'delta',
  'ember',
  'flint',
  'grove',
  'hazel',
  'ivory',
  'larch',
  'maple',
  'north',
  'opal',
  'pebble',
  'quartz',
  'river',
];

/** What the Sections desk shows and does. */
@Injectable()
export class SectionsDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly shared = inject(SharedEdits);
  private readonly notices = inject(Notices);
  private readonly registry = inject(DocumentRegistry);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly reach = this.store.selectSignal(selectReach);
  readonly openLevel = inject(OpenLevel);
  readonly sections = inject(LevelSections);
  readonly kinds = RECIPE_KINDS;
  readonly specs = RECIPES;
  readonly state = this.store.selectSignal(sectionsFeature.selectSectionsState);

  readonly recipes = computed((): HeldRecipe[] => {
    this.registry.contentVersion();
    return this.openLevel.strata().flatMap((document) =>
      [...document.tables.recipe.values()].map((recipe) => ({
        stratum: document.id,
        stratumName: this.tables().stratum[document.id]?.name ?? document.id,
        recipe,
        pins: [...document.tables.pin.values()].filter((pin) => pin.recipe === recipe.id),
      })),
    );
  });
  readonly held = computed(
    () => this.recipes().find(({ recipe }) => recipe.id === this.state().recipe) ?? this.recipes().at(0),
  );
  readonly made = computed(() => {
    const held = this.held();
    return held && this.sections.states().get(held.recipe.id);
  });
  /** Levels that the recipe's stratum reaches. */
  readonly reached = computed(() => this.reach().get(this.held()?.stratum ?? '')?.length ?? 1);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.sections.preview(undefined));
  }

  /** Adds a recipe, in a stratum of the level's own for sections; makes that stratum when there is none. */
  async add(kind: RecipeKind): Promise<void> {
    const level = this.openLevel.level();
    if (!level) return;
    const operations: Operation[] = [];
    let stratum = level.strata.find(
      ({ stratum: id }) =>
        this.tables().stratum[id]?.owner === level.id && this.tables().stratum[id]?.role === 'section',
    )?.stratum;
    if (stratum === undefined) {
      stratum = newId();
      operations.push(
        create(RECORDS_DOCUMENT, 'stratum', { id: stratum, name: 'Sections', role: 'section', owner: level.id }),
        setRecordField(
          'level',
          level,
          'strata',
          plainJson<Level['strata']>([...level.strata, { stratum, switchedOff: false }]),
        ),
      );
    }
    const { one } = RECIPES[kind].words;
    const count = this.recipes().length;
    const recipe = newRecipe(kind, {
      id: newId(),
      name: `${one.charAt(0).toUpperCase()}${one.slice(1)} ${count + 1}`,
      seed: anotherSeed(''),
      isFirst: count === 0,
    });
    operations.push(create(stratum, 'recipe', recipe));
    await this.edits.commit(`add a ${one}`, operations);
    this.store.dispatch(sectionsActions.recipeChosen({ id: recipe.id }));
  }

  async set(field: keyof Recipe, value: Json): Promise<void> {
    const held = this.held();
    if (!held) return;
    const { words, parameters } = recipeSpec(held.recipe);
    const [, parameter] = parameterList(parameters).find(([name]) => name === field) ?? [];
    try {
      await this.shared.commitWhole(`change a ${words.one}’s ${parameter?.words ?? field}`, [
        setField(held.stratum, 'recipe', held.recipe, field, value),
      ]);
    } finally {
      this.sections.preview(undefined);
    }
  }

  /** Shows what would be made, without an edit; nothing: what is made again. */
  try(change: { readonly field: keyof Recipe; readonly value: Json } | undefined): void {
    const recipe = this.held()?.recipe.id;
    this.sections.preview(change && recipe !== undefined ? { recipe, ...change } : undefined);
  }

  async reseed(): Promise<void> {
    const held = this.held();
    if (held) await this.set('seed', anotherSeed(held.recipe.seed));
  }

  async removeRecipe(): Promise<void> {
    const held = this.held();
    if (!held) return;
    await this.shared.commitWhole(`delete a ${recipeSpec(held.recipe).words.one}`, [
      ...held.pins.map((pin) => remove(held.stratum, 'pin', pin)),
      remove(held.stratum, 'recipe', held.recipe),
    ]);
  }

  /** Whether a block of a section can be pinned: one of its walls, or one pinned already. */
  canPin(id: string): boolean {
    const held = this.held();
    return (
      held !== undefined &&
      (recipeSpec(held.recipe).pinned(held.recipe.id, id) !== undefined || held.pins.some((pin) => pin.id === id))
    );
  }

  /** Hides the chosen wall for good. */
  async hideWall(id: string): Promise<void> {
    await this.pin(id, 'hide a wall', (offset) => ({ hidden: true, offset }));
  }

  /** Moves a wall on from where it stands. */
  async moveWall(id: string, by: Vector3): Promise<void> {
    await this.pin(id, 'move a wall', (from) => ({
      hidden: false,
      offset: [from[0] + by[0], from[1] + by[1], from[2] + by[2]],
    }));
  }

  async unpin(pin: Pin): Promise<void> {
    const held = this.held();
    if (held) await this.shared.commitWhole('remove a pin', [remove(held.stratum, 'pin', pin)]);
  }

  /** @param next how the wall shall be, from where it stands */
  private async pin(
    id: string,
    label: string,
    next: (offset: Vector3) => Pick<Pin, 'hidden' | 'offset'>,
  ): Promise<void> {
    const held = this.held();
    if (!held) return;
    const squares = recipeSpec(held.recipe).pinned(held.recipe.id, id);
    // A wall that was pinned a moment ago may still be in hand under its old name.
    const isSame = (pin: Pin): boolean =>
      squares !== undefined &&
      pin.column === squares.column &&
      pin.row === squares.row &&
      pin.columns === squares.columns &&
      pin.rows === squares.rows;
    const known = held.pins.find((pin) => pin.id === id || isSame(pin));
    const over = next(known?.offset ?? [0, 0, 0]);
    if (known) {
      await this.shared.commitWhole(label, [
        setField(held.stratum, 'pin', known, 'hidden', over.hidden),
        ...(over.hidden ? [] : [setField(held.stratum, 'pin', known, 'offset', [...over.offset])]),
      ]);
      this.store.dispatch(sectionsActions.wallChosen({ id: over.hidden ? null : known.id }));
      return;
    }
    if (!squares) {
      this.notices.show('Only walls can be pinned, not the floor, the ceiling or the rim behind a pinned wall.', 4000);
      return;
    }
    const pin: Pin = { id: newId(), recipe: held.recipe.id, ...squares, ...over };
    await this.shared.commitWhole(label, [create(held.stratum, 'pin', pin)]);
    this.store.dispatch(sectionsActions.wallChosen({ id: over.hidden ? null : pin.id }));
  }
}

/** Two words and a number, so that a seed can be said aloud. */
function anotherSeed(before: string): string {
  const [a, b, c] = crypto.getRandomValues(new Uint32Array(3));
  const seed = `${SEED_WORDS[a % SEED_WORDS.length]}-${SEED_WORDS[b % SEED_WORDS.length]}-${c % 100}`;
  return seed === before ? anotherSeed(before) : seed;
}
