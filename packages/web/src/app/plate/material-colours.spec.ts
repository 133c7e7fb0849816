import { BufferGeometry, Color, MeshBasicMaterial, MeshStandardMaterial } from 'three';
import type { PieceMesh } from './kit-meshes';
import { MaterialColours } from './material-colours';

const meshOf = (...materials: readonly (MeshStandardMaterial | MeshBasicMaterial)[]): PieceMesh => ({
  steps: [{ parts: materials.map((material) => ({ geometry: new BufferGeometry(), material })), deviationMetres: 0 }],
});
const standard = (name: string, color: string): MeshStandardMaterial => new MeshStandardMaterial({ name, color });

describe('colours of materials', () => {
  it('follow from the name alone where no kit has it, and tell names apart', () => {
    const colours = new MaterialColours();
    expect(colours.of('brick')).toEqual(new MaterialColours().of(' Brick '));
    const names = ['brick', 'slate', 'timber', 'fireclay', 'salt', 'iron', 'potash', 'wet clay', ''];
    expect(new Set(names.map((name) => colours.of(name).getHexString())).size).toBeGreaterThan(5);
  });

  it('are those of what a name says, by its last word', () => {
    const of = (name: string): string => `#${new MaterialColours().of(name).getHexString()}`;
    expect([of('Slate'), of('roof_slate_02'), of('red sandstone'), of('FIRECLAY')]).toEqual([
      '#707c86',
      '#707c86',
      of('stone'),
      of('clay'),
    ]);
    expect(of('__proto__')).toMatch(/^#[0-9a-f]{6}$/);
    expect(of('constructor')).toMatch(/^#[0-9a-f]{6}$/);
  });

  it('are those of the kit that has a material of that name, and say when they may have changed', () => {
    const colours = new MaterialColours();
    const kit = new Map([['a', meshOf(standard('Salt', '#ffffff'), new MeshBasicMaterial({ name: 'iron' }))]]);
    expect([colours.setMeshes(new Map()), colours.setMeshes(kit), colours.setMeshes(new Map(kit))]).toEqual([
      false,
      true,
      false,
    ]);
    expect(colours.of('salt')).toEqual(new Color('#ffffff'));
    expect(colours.of('iron')).toEqual(new MaterialColours().of('iron'));
    expect(colours.setMeshes(new Map([['a', meshOf(standard('salt', '#eeeeee'))]]))).toBe(true);
  });
});
