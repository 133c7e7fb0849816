import ts from 'typescript';
import type { Spot } from './kinds';
import type { House } from './program';

/** Lists of rooms: what a new kind is added to, and the compiler asks for. */
const LISTS =
  /^packages\/(core\/src\/(items|records|recipes|bakes)\/(index|stored)\.ts|web\/src\/app\/(plate|desks\/layout)\/kinds\/index\.ts)$/;

/** Where the compiler stumbles over kinds that nobody has built, other than at the rooms' lists. */
export function askedElsewhere({ program, sources, pathOf }: House): Spot[] {
  return sources
    .filter((source) => !LISTS.test(pathOf(source)))
    .flatMap((source) =>
      program.getSemanticDiagnostics(source).map(({ start, messageText }): Spot => {
        const line = source.getLineAndCharacterOfPosition(start ?? 0).line + 1;
        return { path: pathOf(source), line, what: ts.flattenDiagnosticMessageText(messageText, ' ').slice(0, 120) };
      }),
    );
}

/** The rooms' lists at which the compiler stumbles over them. */
export function askedAtLists({ program, sources, pathOf }: House): string[] {
  return sources
    .filter((source) => LISTS.test(pathOf(source)) && program.getSemanticDiagnostics(source).length > 0)
    .map(pathOf);
}
