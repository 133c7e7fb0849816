import ts from 'typescript';
import type { Spot } from './kinds';
import type { House } from './program';

/** The few places that are there to cast, each one function or two with its reason beside it. */
const DOORS: ReadonlySet<string> = new Set([
  // A pair of a kind that only the caller knows: the compiler cannot follow it.
  'packages/core/src/items/any-item.ts',
  // Types with known fields have no index; their parameter's type has said that they are JSON.
  'packages/core/src/json/plain-json.ts',
  // What is kept was checked when it was written.
  'packages/core/src/document/stored-record.ts',
]);
/** Steps of the database are never changed once released. */
const FROZEN = /\/db\/migrations\//;

/** Casts to items, records and JSON. */
export function casts({ checker, sources, pathOf }: House, kinds: ReadonlyMap<string, ReadonlySet<string>>): Spot[] {
  const names = new Set([
    'Item',
    'AnyItem',
    'Editable',
    'Json',
    'JsonRecord',
    'StratumContent',
    'RecordTables',
    'Operation',
    'Edit',
    'EditableOfKind',
    ...kinds.keys(),
  ]);
  for (const source of sources) {
    const symbol = checker.getSymbolAtLocation(source);
    for (const exported of symbol ? checker.getExportsOfModule(symbol) : []) {
      if (!kinds.has(exported.name)) continue;
      for (const member of checker.getPropertiesOfType(checker.getDeclaredTypeOfSymbol(exported))) {
        const type = checker.getTypeOfSymbol(member);
        if (type.symbol) names.add(type.symbol.name);
      }
    }
  }
  const spots: Spot[] = [];
  const isNamed = (node: ts.TypeNode): boolean => {
    if (ts.isArrayTypeNode(node)) return isNamed(node.elementType);
    if (ts.isTypeOperatorNode(node)) return isNamed(node.type);
    if (ts.isUnionTypeNode(node)) return node.types.some(isNamed);
    if (ts.isIndexedAccessTypeNode(node)) return isNamed(node.objectType);
    if (node.kind === ts.SyntaxKind.NeverKeyword) return true;
    return (
      ts.isTypeReferenceNode(node) && (names.has(node.typeName.getText()) || (node.typeArguments ?? []).some(isNamed))
    );
  };
  for (const source of sources) {
    if (DOORS.has(pathOf(source)) || FROZEN.test(pathOf(source))) continue;
    const visit = (node: ts.Node): void => {
      if (ts.isAsExpression(node) && isNamed(node.type)) {
        spots.push({
          path: pathOf(source),
          line: source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
          what: node.getText(source).replace(/\s+/g, ' ').slice(-80),
        });
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return spots;
}
