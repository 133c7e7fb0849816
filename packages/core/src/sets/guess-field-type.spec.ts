import fc from 'fast-check';
import { fieldText, linkLookup, readFieldText } from './field-value';
import { guessFieldType } from './guess-field-type';
import { emptyRecordTables } from '../records';

const typeOf = (...cells: string[]): string => guessFieldType(cells).type;

describe('the type of a column', () => {
  it('is the narrowest that reads every cell without a loss', () => {
    expect([
      typeOf(),
      typeOf('', ' '),
      typeOf('yes', 'no', 'True'),
      typeOf('1', '-20', ''),
      typeOf('1', '2.5'),
      typeOf('1,5', '2'),
      typeOf('2027-01-31', '2028-02-29'),
      typeOf('2027-02-29'),
      typeOf('#A6452b'),
      typeOf('1, 0, -2.5'),
      typeOf('hall'),
      typeOf('x'.repeat(201)),
      typeOf('one\ntwo'),
    ]).toEqual([
      'text',
      'text',
      'yes/no',
      'whole number',
      'number',
      'number',
      'date',
      'text',
      'colour',
      'point',
      'text',
      'long text',
      'long text',
    ]);
  });

  it('is text where a number would lose what was written', () => {
    expect([typeOf('007', '12'), typeOf('+4'), typeOf('0x10'), typeOf('1', 'n/a')]).toEqual([
      'text',
      'text',
      'text',
      'text',
    ]);
  });

  it('is a choice where few words come again and again, unless they differ in case alone', () => {
    expect(guessFieldType(['dim', 'bright', 'dim', 'bright', 'dim'])).toEqual({
      type: 'choice',
      choices: ['dim', 'bright'],
    });
    expect([typeOf('dim', 'Dim', 'dim', 'Dim'), typeOf('a', 'b', 'a')]).toEqual(['text', 'text']);
  });

  it('reads every cell that it was guessed from, and numbers read back as they were', () => {
    const links = linkLookup(emptyRecordTables());
    const cell = fc.oneof(
      fc.string(),
      fc.integer().map(String),
      fc.double({ noNaN: true, noDefaultInfinity: true }).map(String),
      fc.constantFrom('yes', 'no', '', '2027-01-01', '#a6452b', '0012', '1,5', '1e3', 'Infinity'),
    );
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 6 }), (cells) => {
        const field = { id: 'f', key: 'f', name: 'f', order: 'a', ...guessFieldType(cells) };
        for (const one of cells) {
          const read = readFieldText(field, one, links);
          expect([one, field.type, read.fault]).toEqual([one, field.type, undefined]);
          if (field.type === 'whole number' && one.trim() !== '')
            expect(Number(fieldText(field, read.value ?? null, links))).toBe(Number(one));
        }
      }),
    );
  });
});
