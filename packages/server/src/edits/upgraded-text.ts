import { UPGRADES, storedOperations, type ModelUpgrades, type Operation } from '@stravel/core';

/** Operations as the log keeps them, JSON, with the version of the model that wrote them. */
export interface KeptOperations {
  readonly operations: string;
  readonly model: number;
}

/** Operations of the log as the newest version has them. */
export function upgradedOperations(
  { operations, model }: KeptOperations,
  upgrades: ModelUpgrades,
): readonly Operation[] {
  return upgrades.operations(storedOperations(operations), model);
}

/** The same as JSON. */
export function upgradedText(kept: KeptOperations, upgrades: ModelUpgrades = UPGRADES): string {
  return JSON.stringify(upgradedOperations(kept, upgrades));
}

/** What threads do with edits that may be long. */
export const EDIT_TASKS = { 'upgrade-operations': (kept: KeptOperations): string => upgradedText(kept) } as const;
