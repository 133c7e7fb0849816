import type { ImportFault } from '../../formats/import-report';
import type { MeshOfPiece, MeshPart } from '../../mesh/kit-meshes';
import { movePart } from '../../mesh/place-part';
import { collisionOwners } from '../../fields/collision-pattern';

/** The meshes that become pieces, and those that are their collisions. */
export interface SortedMeshes {
  readonly pieces: readonly MeshOfPiece[];
  /** Parts of the collision of a piece, in its frame. */
  readonly partsOf: ReadonlyMap<MeshOfPiece, readonly MeshPart[]>;
}

/** Puts meshes that are named as collisions to the pieces that they are of; several of one piece are one. */
export function ownCollisions(meshes: readonly MeshOfPiece[], pattern: string, faults: ImportFault[]): SortedMeshes {
  const note = (where: string, message: string): void => void faults.push({ severity: 'note', where, message });
  const ownersOf = new Map(meshes.map((mesh) => [mesh, collisionOwners(pattern, mesh.name)]));
  const byName = new Map<string, MeshOfPiece>();
  for (const mesh of meshes) if (!byName.has(mesh.name)) byName.set(mesh.name, mesh);
  const partsOf = new Map<MeshOfPiece, MeshPart[]>();
  const pieces = meshes.filter((mesh) => {
    const names = ownersOf.get(mesh) ?? [];
    const owner = names.map((name) => byName.get(name)).find((one) => one !== undefined && one !== mesh);
    if (!owner) {
      if (names.length > 0)
        note(mesh.name, `is named as a collision, but no mesh is called “${names[0]}”; it comes in as a piece`);
      return true;
    }
    // A collision of a collision is none: what is named so itself stays a piece.
    if ((ownersOf.get(owner) ?? []).some((name) => byName.has(name))) return true;
    note(mesh.name, `is the collision of “${owner.name}”`);
    const by = [0, 1, 2].map((k) => (mesh.at?.[k] ?? 0) - (owner.at?.[k] ?? 0)) as [number, number, number];
    partsOf.set(owner, [...(partsOf.get(owner) ?? []), ...mesh.parts.map((part) => movePart(part, by))]);
    return false;
  });
  return { pieces, partsOf };
}
