import { CoreError, type BlockPlane } from '@stravel/core';

/** Reads planes as 'nx ny nz offset; …'. @throws CoreError 'PLANES_TEXT' naming the plane and what is wrong with it */
export function readPlanes(text: string): BlockPlane[] {
  return text
    .split(/[;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part, i): BlockPlane => {
      const numbers = part.split(/[\s]+/).map(Number);
      if (numbers.length !== 4 || !numbers.every(Number.isFinite)) {
        throw new CoreError(
          'PLANES_TEXT',
          `planes: plane ${i + 1} is “${part}”; it needs four numbers: nx ny nz offset`,
        );
      }
      return [numbers[0], numbers[1], numbers[2], numbers[3]];
    });
}
