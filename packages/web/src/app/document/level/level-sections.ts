import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  CoreError,
  canonicalJson,
  errorText,
  placementAt,
  plainJson,
  recipeInputs,
  type Json,
  type Recipe,
  type RecipeInputs,
  type Section,
} from '@stravel/core';
import type { Run } from '../../compute/compute';
import { DocumentRegistry } from '../document-registry';
import { StratumDocument } from '../stratum-document';
import { LevelAssemblies, LAID_PREFIX } from './level-assemblies';
import { KeptSections } from './kept-sections';
import { OpenLevel } from './open-level';

const PREFIX = 'section:';

/** A field of a recipe as it would be, which is in no log. */
export interface RecipeDraft {
  readonly recipe: string;
  readonly field: keyof Recipe;
  readonly value: Json;
}

/** How far the section of a recipe is. */
export interface SectionState {
  readonly stratum: string;
  /** What it reads, as it was when it was made. */
  readonly inputs: string;
  readonly making: { readonly fraction: number; readonly stage: string } | undefined;
  /** What was made last; stays in view while the next one is made. */
  readonly section: Section | undefined;
  readonly document: StratumDocument | undefined;
  readonly failure: string;
}

/** Whether a document holds what a recipe made or an assembly brought, and is nobody's to edit. */
export function isMade(document: string): boolean {
  return document.startsWith(PREFIX) || document.startsWith(LAID_PREFIX);
}

/** The sections of the open level's recipes, made in the worker and made anew when recipe or pins change. */
@Injectable({ providedIn: 'root' })
export class LevelSections {
  private readonly openLevel = inject(OpenLevel);
  private readonly registry = inject(DocumentRegistry);
  private readonly kept = inject(KeptSections);
  private readonly assemblies = inject(LevelAssemblies);
  private readonly runs = new Map<string, Run<Section>>();
  private readonly byRecipe = signal<ReadonlyMap<string, SectionState>>(new Map());

  private draft: RecipeDraft | undefined;

  readonly states = this.byRecipe.asReadonly();
  /** Strata of the open level, what stands in their assemblies, and what its recipes made of them. */
  readonly drawn = computed(() => [
    ...this.openLevel.strata(),
    ...this.assemblies.documents(),
    ...[...this.byRecipe().values()].flatMap(({ document }) => document ?? []),
  ]);

  constructor() {
    effect(() => {
      if (!this.openLevel.isShown()) return;
      const strata = this.openLevel.strata();
      this.registry.contentVersion();
      untracked(() => this.follow(strata));
    });
  }

  /** Ids of the documents that are hidden along with some strata. */
  hiddenWith(strata: ReadonlySet<string>): string[] {
    const laid = [...strata].map((stratum) => LAID_PREFIX + stratum);
    return laid.concat(
      [...this.byRecipe()].flatMap(([recipe, { stratum }]) => (strata.has(stratum) ? [PREFIX + recipe] : [])),
    );
  }

  /** Makes a section as if its recipe were so, without an edit; nothing: as all are. */
  preview(draft: RecipeDraft | undefined): void {
    if (!draft && !this.draft) return;
    this.draft = draft;
    this.follow(this.openLevel.strata());
  }

  cancel(recipe: string): void {
    this.runs.get(recipe)?.cancel();
  }

  /** Makes a section again that was cancelled. */
  again(recipe: string): void {
    this.byRecipe.update((all) => {
      const next = new Map(all);
      next.delete(recipe);
      return next;
    });
    this.follow(this.openLevel.strata());
  }

  private follow(strata: readonly StratumDocument[]): void {
    const wanted = new Set<string>();
    for (const document of strata) {
      for (const recipe of document.tables.recipe.values()) {
        wanted.add(recipe.id);
        const draft = this.draft?.recipe === recipe.id ? this.draft : undefined;
        const shown: Recipe = draft ? { ...recipe, [draft.field]: draft.value } : recipe;
        const reads = recipeInputs(shown, document.tables.pin.values());
        const inputs = canonicalJson(plainJson(reads));
        if (this.byRecipe().get(recipe.id)?.inputs !== inputs)
          void this.make(document.id, reads, inputs, draft !== undefined);
      }
    }
    if ([...this.byRecipe().keys()].some((recipe) => !wanted.has(recipe))) {
      for (const recipe of this.byRecipe().keys()) if (!wanted.has(recipe)) this.cancel(recipe);
      this.byRecipe.update((all) => new Map([...all].filter(([recipe]) => wanted.has(recipe))));
    }
  }

  private async make(stratum: string, reads: RecipeInputs, inputs: string, isDraft: boolean): Promise<void> {
    const { recipe } = reads;
    this.cancel(recipe.id);
    const before = this.byRecipe().get(recipe.id);
    this.put(recipe.id, {
      stratum,
      inputs,
      making: { fraction: 0, stage: 'starting' },
      section: before?.section,
      document: before?.document,
      failure: '',
    });
    const say = (fraction: number, stage: string): void =>
      this.change(recipe.id, inputs, { making: { fraction, stage } });
    const run = isDraft ? this.kept.make(reads, say) : this.kept.bring(stratum, reads, say);
    this.runs.set(recipe.id, run);
    try {
      const section = await run.result;
      this.change(recipe.id, inputs, { making: undefined, section, document: documentOfSection(recipe.id, section) });
    } catch (error) {
      const cancelled = error instanceof CoreError && error.code === 'CANCELLED';
      this.change(recipe.id, inputs, {
        making: undefined,
        failure: cancelled ? 'Cancelled.' : errorText(error),
      });
    } finally {
      if (this.runs.get(recipe.id) === run) this.runs.delete(recipe.id);
    }
  }

  private put(recipe: string, state: SectionState): void {
    this.byRecipe.update((all) => new Map(all).set(recipe, state));
  }

  /** Nothing when another run has taken its place. */
  private change(recipe: string, inputs: string, over: Partial<SectionState>): void {
    const state = this.byRecipe().get(recipe);
    if (state?.inputs === inputs) this.put(recipe, { ...state, ...over });
  }
}

/** What a recipe made, to be drawn as a stratum. */
export function documentOfSection(recipe: string, { blocks, markers, placements }: Section): StratumDocument {
  const document = new StratumDocument(PREFIX + recipe);
  for (const block of blocks) document.tables.block.set(block.id, block);
  for (const marker of markers) document.tables.marker.set(marker.id, marker);
  if (placements) for (let i = 0; i < placements.count; i++) document.tables.placement.put(placementAt(placements, i));
  return document;
}
