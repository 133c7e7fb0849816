import { switchDistances, type Piece, type ViewSettings } from '@stravel/core';

/** Every LOD of some pieces as rows of a file, in metres and bytes. What is not known is empty. */
export function lodsCsvRows(pieces: readonly Piece[], view: ViewSettings): string[][] {
  const rows = pieces.flatMap(({ name, steps }) => {
    const distances = switchDistances(steps, view);
    return steps.map(({ triangles, vertices, materials, bytes, deviationMetres }, i) => [
      name,
      i === 0 ? 'full' : String(i),
      ...[triangles, vertices, materials, bytes].map(String),
      i === 0 ? '0' : String(deviationMetres ?? ''),
      String(distances[i]),
    ]);
  });
  return [['Piece', 'LOD', 'Triangles', 'Vertices', 'Materials', 'Bytes', 'Error, m', 'Used from, m'], ...rows];
}
