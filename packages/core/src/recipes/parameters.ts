import type { Vector3 } from '../model/vector';

/** How a parameter is called, and what it does in a few words. */
interface Told {
  readonly words: string;
  readonly means: string;
}

export interface NumberParameter extends Told {
  readonly as: 'number';
  readonly least: number;
  readonly most: number;
  readonly isWhole?: true;
  /** Of the value as it is shown, '' for a bare count. */
  readonly unit: string;
  /** It is shown so many times as large: a share in per cent. */
  readonly shownTimes?: number;
  /** Of a new recipe. */
  readonly usual: number;
}

export interface FlagParameter extends Told {
  readonly as: 'flag';
  readonly usual: boolean;
  /** Of the first recipe of a level, where that is another. */
  readonly first?: boolean;
}

/** A name that people give, such as a material's. */
export interface NameParameter extends Told {
  readonly as: 'name';
  readonly usual: string;
}

/** A new recipe draws it. */
export interface SeedParameter extends Told {
  readonly as: 'seed';
  readonly mostLetters: number;
}

/** A place in the level, metres. */
export interface CornerParameter extends Told {
  readonly as: 'corner';
  readonly usual: Vector3;
}

export type Parameter = NumberParameter | FlagParameter | NameParameter | SeedParameter | CornerParameter;

/** The descriptions that fit a field of some type. */
export type ParameterOf<V> = V extends number
  ? NumberParameter
  : V extends boolean
    ? FlagParameter
    : V extends string
      ? NameParameter | SeedParameter
      : V extends Vector3
        ? CornerParameter
        : never;

/** A description for each parameter of a recipe: one that is forgotten or of another sort does not compile. */
export type Parameters<R> = {
  readonly [F in Exclude<keyof R, 'id' | 'name' | 'kind' | 'group'>]-?: ParameterOf<R[F]>;
};

/** The parameters of a kind that only the caller knows, in their order. */
export function parameterList(
  parameters: Readonly<Record<string, Parameter>>,
): readonly (readonly [string, Parameter])[] {
  return Object.entries(parameters);
}
