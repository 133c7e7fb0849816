import { ValidationError } from 'yup';
import { finite, oneOf, shape, text, variants, type Shape } from './field';

interface Course {
  readonly kind: 'course';
  readonly lengthMetres: number;
}
interface Scatter {
  readonly kind: 'scatter';
  readonly name: string;
}
const course = shape<Course>({ kind: oneOf(['course']), lengthMetres: finite(0, 10) });
const scatter = shape<Scatter>({ kind: oneOf(['scatter']), name: text({ min: 1 }) });
// Each is the shape of what has its word.
const both = variants<Course | Scatter>(
  'kind',
  new Map<string, Shape<Course | Scatter>>([
    ['course', course as Shape<Course | Scatter>],
    ['scatter', scatter as Shape<Course | Scatter>],
  ]),
);
const faults = (value: unknown): string[] => {
  try {
    both.yup.validateSync(value, { abortEarly: false, strict: true });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length > 0 ? error.inner : [error];
    return [...new Set(all.map(({ path }) => path ?? ''))];
  }
};

describe('one of several tables of fields', () => {
  it.each<[unknown, string[]]>([
    [{ kind: 'course', lengthMetres: 3 }, []],
    [{ kind: 'scatter', name: 'reeds' }, []],
    [{ kind: 'course', lengthMetres: 11 }, ['lengthMetres']],
    [{ kind: 'scatter', name: '' }, ['name']],
    [{ kind: 'scatter', lengthMetres: 3 }, ['name', '']],
    [{ kind: 'ghost', lengthMetres: 3 }, ['kind']],
    [{ kind: 'constructor' }, ['kind']],
    [{ lengthMetres: 3 }, ['kind']],
  ])('is told by its word, and words what is wrong: %j', (value, expected) => {
    expect(faults(value).sort()).toEqual(expected.sort());
    expect(both.check(value)).toBe(expected.length === 0);
  });

  it('takes nothing that is no table', () => {
    for (const value of [null, undefined, 3, 'course', [], [{ kind: 'course', lengthMetres: 3 }]])
      expect(both.check(value)).toBe(false);
  });

  it('knows the fields of all, and is the one where there is but one', () => {
    expect(Object.keys(both.fields)).toEqual(['kind', 'lengthMetres', 'name']);
    expect([both.fields['kind'].check('scatter'), both.fields['kind'].check('ghost')]).toEqual([true, false]);
    expect(variants<Course>('kind', new Map([['course', course]]))).toBe(course);
  });
});
