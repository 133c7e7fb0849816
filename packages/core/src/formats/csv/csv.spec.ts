import fc from 'fast-check';
import { MAX_CSV_ROWS, readClipboardRows, readCsv, writeClipboardRows, writeCsv } from './csv';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('csv', () => {
  it('comes back as it was, whatever stands in the cells', () => {
    const cell = fc.oneof(
      fc.string(),
      fc.constantFrom('=1+1', '+49', '-3', "'=x", '@a', 'a\nb', 'a;b', '"', '\t', ' x '),
    );
    const rows = fc
      .integer({ min: 2, max: 5 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 6 }),
      );
    fc.assert(
      fc.property(rows, (table) => {
        // A row of nothing is no row.
        const filled = table.filter((row) => row.some((one) => one.trim() !== ''));
        fc.pre(
          filled.length > 0 &&
            !filled.some((row) => row.some((one) => /^'+[=+\-@\t\r]/.test(one) || one.includes('\r'))),
        );
        expect(readCsv(bytes(writeCsv([['a', 'b', 'c', 'd', 'e'].slice(0, filled[0].length), ...filled])))).toEqual([
          ['a', 'b', 'c', 'd', 'e'].slice(0, filled[0].length),
          ...filled,
        ]);
        expect(readClipboardRows(writeClipboardRows(filled))).toEqual(filled);
      }),
    );
  });

  it('keeps a spreadsheet from running what looks like a formula, and leaves numbers alone', () => {
    expect(writeCsv([['=HYPERLINK("x")', '-4.5', '+a', '@b']])).toBe(`"'=HYPERLINK(""x"")",-4.5,'+a,'@b\r\n`);
  });

  it('finds the delimiter and reads UTF-16', () => {
    expect(readCsv(bytes('a;b\n1;2,5\n'))).toEqual([
      ['a', 'b'],
      ['1', '2,5'],
    ]);
    expect(readCsv(new Uint8Array(Buffer.from('\ufeffa\tb', 'utf16le')))).toEqual([['a', 'b']]);
  });

  it('names what is wrong and where', () => {
    expect(() => readCsv(bytes(''))).toThrow('has no rows');
    expect(() => readCsv(new Uint8Array([0x61, 0x2c, 0xe4, 0x0a]))).toThrow('byte 3 is not UTF-8');
    expect(() => readCsv(bytes('a,b\n"open,2\n3,4\n'))).toThrow(/row 2: .*quote/i);
    expect(() => readCsv(bytes('x\n'.repeat(MAX_CSV_ROWS + 5)))).toThrow('more than 100000 rows');
  });
});
