import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { writeKitGlb } from '../formats/glb/write-kit-glb';
import { buildChains } from './kit-steps';
import { pieceNameFault, renamePieces } from './rename-pieces';

/** A bowl of `side` by `side` squares. */
function bowl(name: string, side: number): Parameters<typeof writeKitGlb>[0][number] {
  const at = (i: number, j: number): number => i * (side + 1) + j;
  const positions: number[] = [];
  const indices: number[] = [];
  for (let i = 0; i <= side; i++)
    for (let j = 0; j <= side; j++) positions.push(i, ((i - side / 2) ** 2 + (j - side / 2) ** 2) / side, j);
  for (let i = 0; i < side; i++)
    for (let j = 0; j < side; j++)
      indices.push(at(i, j), at(i, j + 1), at(i + 1, j), at(i, j + 1), at(i + 1, j + 1), at(i + 1, j));
  return {
    name,
    parts: [
      {
        material: { name: 'clay', colour: [0.5, 0.4, 0.3], roughness: 1 },
        positions: Float32Array.from(positions),
        normals: Float32Array.from(positions, (_value, i) => (i % 3 === 1 ? 1 : 0)),
        indices: Uint32Array.from(indices),
      },
    ],
  };
}

describe('renaming a piece of a kit', () => {
  it('takes its LODs along, leaves all others, and goes back to the very same bytes', async () => {
    const { glb } = await buildChains(
      {
        glb: await writeKitGlb([bowl('bowl', 12), bowl('bowl two', 8)]),
        names: ['bowl', 'bowl two'],
        options: { steps: 2 },
      },
      createRunContext(),
    );
    const namesOf = async (bytes: Uint8Array): Promise<string[]> =>
      (await readGlb(bytes)).meshes.pieces.map(({ name }) => name);
    expect(await namesOf(glb)).toContain('bowl.step1');
    const renamed = await renamePieces({ kit: glb, names: [{ from: 'bowl', to: 'basin' }] });
    expect(await namesOf(renamed)).toEqual((await namesOf(glb)).map((name) => name.replace(/^bowl(?! two)/, 'basin')));
    expect(Buffer.compare(await renamePieces({ kit: renamed, names: [{ from: 'basin', to: 'bowl' }] }), glb)).toBe(0);
    // Another way of writing the same letters is a name like any.
    expect(await namesOf(await renamePieces({ kit: glb, names: [{ from: 'bowl', to: 'Bowl' }] }))).toContain(
      'Bowl.step1',
    );
    await expect(renamePieces({ kit: glb, names: [{ from: 'bow', to: 'x' }] })).rejects.toThrow(
      'the kit has no piece called bow',
    );
    await expect(renamePieces({ kit: glb, names: [{ from: 'bowl', to: 'BOWL two' }] })).rejects.toThrow(
      'rename: The kit has a piece called bowl two.',
    );
  });

  it('refuses names that files cannot have', () => {
    const fault = (name: string): string => pieceNameFault(name, ['crate']);
    expect([fault('lid'), fault('Crate 2'), fault('a'.repeat(100))]).toEqual(['', '', '']);
    expect(fault('Crate')).toBe('The kit has a piece called crate.');
    expect(fault('  ')).toBe('A piece needs a name.');
    for (const name of ['a.step1', 'a/b', 'größe', 'a\n', 'crate ', '\u0000'])
      expect(fault(name)).toMatch(/^A name has letters/);
    expect(fault('a'.repeat(101))).toContain('this one has 101');
  });
});
