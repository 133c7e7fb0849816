import ts from 'typescript';
import type { Spot } from './kinds';
import type { House } from './program';

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
