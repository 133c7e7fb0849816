import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { ROOT, type House } from './program';

/** Rooms may name their own kind; a list of rooms names them all. */
const ROOM = /^packages\/(core\/src\/(items|records|recipes|bakes)|web\/src\/app\/(plate|desks\/layout)\/kinds)\//;

/** A place at which the house is not as it should be. */
export interface Spot {
  readonly path: string;
  readonly line: number;
  readonly what: string;
}

/** The names of kinds, by the type maps that declare them. */
export function kindNames(
  { program, checker }: House,
  maps: Readonly<Record<string, { readonly module: string }>>,
): Map<string, Set<string>> {
  return new Map(
    Object.entries(maps).map(([map, { module }]) => {
      const source = program.getSourceFile(join(ROOT, 'packages/core/src', `${module}.ts`));
      const symbol = source && checker.getSymbolAtLocation(source);
      const declared = symbol && checker.getExportsOfModule(symbol).find(({ name }) => name === map);
      const members = declared ? checker.getPropertiesOfType(checker.getDeclaredTypeOfSymbol(declared)) : [];
      return [map, new Set(members.map(({ name }) => name))];
    }),
  );
}

/** Places outside the rooms at which a kind is compared with a name. By type: a tool's name is no kind. */
export function comparedKinds(house: House, kinds: ReadonlyMap<string, ReadonlySet<string>>): Spot[] {
  const { checker, sources, pathOf } = house;
  const spots: Spot[] = [];
  for (const source of sources) {
    if (ROOM.test(pathOf(source))) continue;
    const tell = (node: ts.Node): void => {
      const line = source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1;
      spots.push({ path: pathOf(source), line, what: node.getText(source).slice(0, 80) });
    };
    const isKind = (node: ts.Expression, name: string): boolean => {
      const type = checker.getTypeAtLocation(node);
      const parts = (type.isUnion() ? type.types : [type]).filter(
        (part) => !(part.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)),
      );
      if (parts.every((part) => part.isStringLiteral())) {
        const values = parts.map((part) => part.value);
        return (
          [...kinds.values()].some((names) => names.has(name) && values.every((value) => names.has(value))) ||
          values.every((value) => [...kinds.values()].some((names) => names.has(value)))
        );
      }
      return (
        /(^|\.)kind$|\['kind'\]$/.test(node.getText(source)) && [...kinds.values()].some((names) => names.has(name))
      );
    };
    const visit = (node: ts.Node): void => {
      if (
        ts.isBinaryExpression(node) &&
        [ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken].includes(
          node.operatorToken.kind,
        )
      ) {
        const [left, right] = [node.left, node.right];
        if (ts.isStringLiteral(right) && isNamed(kinds, right.text) && isKind(left, right.text)) tell(node);
        else if (ts.isStringLiteral(left) && isNamed(kinds, left.text) && isKind(right, left.text)) tell(node);
      }
      if (
        ts.isBinaryExpression(node) &&
        node.operatorToken.kind === ts.SyntaxKind.InKeyword &&
        ts.isStringLiteral(node.left)
      ) {
        const type = checker.getTypeAtLocation(node.right);
        if (
          type.isUnion() &&
          type.types.length >= 3 &&
          type.types.every((part) => part.getProperty('id') !== undefined)
        )
          tell(node);
      }
      if (ts.isCaseClause(node) && ts.isStringLiteral(node.expression) && isNamed(kinds, node.expression.text)) {
        if (isKind(node.parent.parent.expression, node.expression.text)) tell(node.expression);
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return [...spots, ...comparedInTemplates(kinds)];
}

function isNamed(kinds: ReadonlyMap<string, ReadonlySet<string>>, name: string): boolean {
  return [...kinds.values()].some((names) => names.has(name));
}

function comparedInTemplates(kinds: ReadonlyMap<string, ReadonlySet<string>>): Spot[] {
  const folder = join(ROOT, 'packages/web/src');
  const names = [...new Set([...kinds.values()].flatMap((set) => [...set]))].join('|');
  const pattern = new RegExp(`kind(\\(\\))? ?[!=]== '(${names})'`, 'g');
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.name.endsWith('.html'))
    .flatMap((entry) => {
      const path = join(entry.parentPath, entry.name);
      const lines = readFileSync(path, 'utf8').split('\n');
      const short = path.slice(ROOT.length);
      return ROOM.test(short)
        ? []
        : lines.flatMap((text, i) =>
            [...text.matchAll(pattern)].map((found): Spot => ({ path: short, line: i + 1, what: found[0] })),
          );
    });
}

/** Lists and tables of kinds outside the rooms that were written by hand. */
export function listedKinds({ sources, pathOf }: House, kinds: ReadonlyMap<string, ReadonlySet<string>>): Spot[] {
  const spots: Spot[] = [];
  for (const source of sources) {
    const path = pathOf(source);
    if (ROOM.test(path)) continue;
    const isList = (names: readonly (string | undefined)[], least: number): boolean =>
      names.length >= least &&
      [...kinds.values()].some((set) => names.every((name) => name !== undefined && set.has(name)));
    const visit = (node: ts.Node): void => {
      const isArray =
        ts.isArrayLiteralExpression(node) &&
        isList(
          node.elements.map((one) => (ts.isStringLiteral(one) ? one.text : undefined)),
          2,
        );
      const names = ts.isObjectLiteralExpression(node)
        ? node.properties.map((one) =>
            one.name && (ts.isIdentifier(one.name) || ts.isStringLiteral(one.name)) ? one.name.text : undefined,
          )
        : [];
      const isTable = ts.isObjectLiteralExpression(node) && isList(names, 5);
      if (isArray || isTable) {
        spots.push({
          path,
          line: source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
          what: node.getText(source).replace(/\s+/g, ' ').slice(0, 80),
        });
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return spots;
}
