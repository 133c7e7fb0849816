import { array, object, string, ValidationError } from 'yup';
import { ITEM_KINDS } from '@stravel/core';
import type { ItemRef } from '../store/layout-store';

/** Selections by name. */
export type KeptSelections = Readonly<Record<string, readonly ItemRef[]>>;

const REFS = array()
  .of(
    object({ stratum: string().required(), kind: string().required().oneOf(ITEM_KINDS), id: string().required() })
      .noUnknown()
      .strict(),
  )
  .required();

/** What was kept; what cannot be read is left out. */
export function readSelections(text: string | null): KeptSelections {
  let read: unknown;
  try {
    read = JSON.parse(text ?? '{}');
  } catch {
    return {};
  }
  if (typeof read !== 'object' || read === null) return {};
  return Object.fromEntries(
    Object.entries(read).flatMap(([name, refs]): [string, ItemRef[]][] => {
      try {
        return [[name, REFS.validateSync(refs, { strict: true }) as ItemRef[]]];
      } catch (error) {
        if (error instanceof ValidationError) return [];
        throw error;
      }
    }),
  );
}
