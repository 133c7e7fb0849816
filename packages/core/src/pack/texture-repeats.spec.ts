import { textureRepeats } from './texture-repeats';

/** A mesh with texture coordinates in each of the ways in which they can be kept, under nodes named by it. */
function gltf(): { json: object; binary: Uint8Array } {
  const binary = new Uint8Array(100);
  const view = new DataView(binary.buffer);
  // Three of floats with eight bytes to the next but one: 0 0, 3 1, -1.5 0.5.
  [0, 0, 3, 1, -1.5, 0.5].forEach((value, i) => view.setFloat32(8 + (i >> 1) * 12 + (i % 2) * 4, value, true));
  // Two of shorts, of which 65535 is 1.
  [0, 65535, 13107, 0].forEach((value, i) => view.setUint16(60 + i * 2, value, true));
  const node = (name: string, mesh: number): object => ({ name, mesh });
  const mesh = (attributes: object, material?: number): object => ({ primitives: [{ attributes, material }] });
  return {
    json: {
      nodes: [
        node('plain', 0),
        node('second', 1),
        node('scaled', 2),
        node('bare', 3),
        node('lost', 4),
        { name: 'empty' },
      ],
      meshes: [
        mesh({ TEXCOORD_0: 0 }, 0),
        mesh({ TEXCOORD_0: 0, TEXCOORD_1: 1 }, 1),
        mesh({ TEXCOORD_0: 0 }, 2),
        mesh({ TEXCOORD_0: 0 }),
        mesh({ TEXCOORD_0: 2 }, 0),
      ],
      materials: [
        { pbrMetallicRoughness: { baseColorTexture: { index: 0 } } },
        { normalTexture: { index: 0, texCoord: 1 } },
        {
          extensions: {
            KHR_materials_sheen: {
              sheenColorTexture: { index: 0, extensions: { KHR_texture_transform: { scale: [-2, 8] } } },
            },
          },
        },
      ],
      accessors: [
        { bufferView: 0, componentType: 5126, type: 'VEC2', count: 3 },
        { bufferView: 1, componentType: 5123, type: 'VEC2', count: 2, normalized: true },
        { componentType: 5126, type: 'VEC2', count: 9 },
      ],
      bufferViews: [
        { byteOffset: 8, byteLength: 36, byteStride: 12 },
        { byteOffset: 60, byteLength: 8 },
      ],
    },
    binary,
  };
}

describe('how often textures repeat', () => {
  it('follows the coordinates of each texture, their kind and its transform', () => {
    const { json, binary } = gltf();
    expect([...textureRepeats(json, binary)]).toEqual([
      ['plain', 4.5],
      ['second', 1],
      ['scaled', 9],
      ['lost', 0],
    ]);
  });

  it('has nothing to say of a file without meshes, or with parts that are not there', () => {
    expect(textureRepeats({}, new Uint8Array()).size).toBe(0);
    expect(textureRepeats({ nodes: [{ name: 'a', mesh: 7 }], meshes: [null] }, new Uint8Array()).size).toBe(0);
  });
});
