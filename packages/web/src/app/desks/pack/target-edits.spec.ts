import { PLAIN_TARGET, type Operation, type Target } from '@stravel/core';
import { copyTarget, folderFault, setTarget } from './target-edits';

const own = (id: string, name: string, folder: string, order: string): Target => ({
  ...PLAIN_TARGET,
  id,
  name,
  folder,
  order,
});
const told = (operations: readonly Operation[]): (string | null)[] => operations.map(({ field }) => field);
const made = ({ operations }: { readonly operations: readonly Operation[] }): Target =>
  operations.at(-1)?.after as unknown as Target;

describe('edits of targets', () => {
  it('make the plain target the collection’s own with its first change, and no sooner', () => {
    const first = setTarget({ target: {} }, PLAIN_TARGET, { withAllPurposes: true });
    expect(told(first.operations)).toEqual([null, 'withAllPurposes']);
    expect(first.operations.every(({ id }) => id === first.id)).toBe(true);
    const kept = own('a', 'Plain glTF', 'build', 'a0');
    const next = setTarget({ target: { a: kept } }, kept, { 'rules.tiling': { isOn: true, max: 4 } });
    expect([next.id, next.operations]).toEqual([
      'a',
      [
        {
          document: 'records',
          kind: 'target',
          id: 'a',
          field: 'rules.tiling',
          before: null,
          after: { isOn: true, max: 4 },
        },
      ],
    ]);
  });

  it('keep the plain one beside the first that is added, behind it in order, with a folder of its own', () => {
    const added = copyTarget({ target: {} }, PLAIN_TARGET, 'Plain glTF');
    const [plain, copy] = added.operations.map(({ after }) => after as unknown as Target);
    expect([plain.name, plain.folder, copy.name, copy.folder]).toEqual([
      'Plain glTF',
      'build',
      'Plain glTF 2',
      'plain-gltf-2',
    ]);
    expect(plain.order < copy.order).toBe(true);
    expect(added.id).toBe(copy.id);
  });

  it('find a free name and folder, whatever the name', () => {
    const target = { a: own('a', 'Box', 'box', 'a0'), b: own('b', 'Box 2', 'Box-2', 'a1') };
    expect(made(copyTarget({ target }, target.a, 'Box'))).toMatchObject({ name: 'Box 3', folder: 'box-3' });
    expect(made(copyTarget({ target }, target.a, '硝子')).folder).toBe('target');
    const long = made(copyTarget({ target }, target.a, `${'x'.repeat(49)} y ${'z'.repeat(100)}`));
    expect(folderFault(Object.values(target), long.id, long.folder)).toBe('');
  });

  it('refuse a folder that is none, or another’s whatever its case', () => {
    const targets = [own('a', 'Box', 'box', 'a0'), own('b', 'Tower', 'tower', 'a1')];
    expect(folderFault(targets, 'a', 'box')).toBe('');
    expect(folderFault(targets, 'b', 'BOX')).toBe('Box is packed into box: choose another folder.');
    for (const folder of ['', '../up', ' box', 'x'.repeat(61), 'a/b'])
      expect(folderFault(targets, 'a', folder)).toMatch(/^Letters, digits/);
  });
});
