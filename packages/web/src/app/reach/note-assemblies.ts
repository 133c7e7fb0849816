import {
  CoreError,
  RECORDS_DOCUMENT,
  wouldHoldItself,
  type AssemblyUse,
  type Json,
  type Operation,
  type Patch,
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
    const assembly = broughtBy(operation);
    if (assembly === undefined || !Object.hasOwn(tables.stratum, operation.document)) continue;
    brought.set(operation.document, (brought.get(operation.document) ?? new Set()).add(assembly));
  }
  return [...brought].flatMap(([id, assemblies]) => {
    const stratum: Stratum = tables.stratum[id];
    const itself = [...assemblies].find((assembly) => wouldHoldItself(tables.stratum, id, assembly));
    if (itself !== undefined)
      throw new CoreError(
        'ASSEMBLY_IN_ITSELF',
        `${tables.stratum[itself].name} cannot stand in ${stratum.name}: it would hold itself`,
        { assembly: itself },
      );
    const known = stratum.assemblies ?? [];
    const all = [...new Set([...known, ...assemblies])].sort();
    return all.length === known.length
      ? []
      : [setRecordField('stratum', stratum, 'assemblies', all as unknown as Json)];
  });
}

/** The assembly that an operation lets stand somewhere, undefined for others. */
function broughtBy({ document, kind, field, after }: Operation): string | undefined {
  if (document === RECORDS_DOCUMENT || after === null) return undefined;
  if (kind === 'assembly')
    return field === null
      ? (after as unknown as AssemblyUse).assembly
      : field === 'assembly'
        ? (after as string)
        : undefined;
  if (kind !== 'patch' || field !== null) return undefined;
  const { kind: patched, fields } = after as unknown as Patch;
  return patched === 'assembly' && typeof fields['assembly'] === 'string' ? fields['assembly'] : undefined;
}
