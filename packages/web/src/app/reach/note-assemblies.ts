import {
  CoreError,
  RECORDS_DOCUMENT,
  isItemKind,
  isJsonTable,
  overIdsOf,
  wouldHoldItself,
  type Operation,
  type RecordTables,
  type Stratum,
} from '@stravel/core';
import { setRecordField } from '../edits/operations';

/**
 * What makes the records name every assembly that operations bring into a stratum.
 * @throws CoreError 'ASSEMBLY_IN_ITSELF' when an assembly would come to stand in itself
 */
export function noteAssemblies(tables: RecordTables, operations: readonly Operation[]): Operation[] {
  const brought = new Map<string, Set<string>>();
  for (const operation of operations) {
    if (!Object.hasOwn(tables.stratum, operation.document)) continue;
    for (const assembly of broughtBy(operation))
      brought.set(operation.document, (brought.get(operation.document) ?? new Set()).add(assembly));
  }
  return [...brought].flatMap(([id, assemblies]) => {
    const stratum: Stratum = tables.stratum[id];
    const itself = [...assemblies].find((assembly) => wouldHoldItself(tables.stratum, id, assembly));
    if (itself !== undefined)
      throw new CoreError(
        'ASSEMBLY_IN_ITSELF',
        `${tables.stratum[itself].name} cannot be placed in ${stratum.name}: it would contain itself`,
        { assembly: itself },
      );
    const known = stratum.assemblies ?? [];
    const all = [...new Set([...known, ...assemblies])].sort();
    return all.length === known.length ? [] : [setRecordField('stratum', stratum, 'assemblies', all)];
  });
}

/** The assemblies that an operation lets stand somewhere. What a use of one changes of its things brings none. */
function broughtBy({ document, kind, field, after }: Operation): string[] {
  const fields = field === null ? after : { [field]: after };
  if (document === RECORDS_DOCUMENT || !isItemKind(kind) || !isJsonTable(fields)) return [];
  const found: string[] = [];
  overIdsOf(kind, fields, (id, { to, isStrict }) => {
    if (to === 'stratum' && isStrict) found.push(id);
    return id;
  });
  return found;
}
