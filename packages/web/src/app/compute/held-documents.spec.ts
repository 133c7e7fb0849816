import { deserialize, serialize } from 'node:v8';
import fc from 'fast-check';
import { levelContent, type Level, type Stratum } from '@stravel/core';
import { StratumDocument } from '../document/stratum-document';
import { HeldDocuments } from './held-documents';
import type { HoldMessage } from './hold-protocol';
import { SentDocuments, versionsOf } from './sent-documents';

const level = { id: 'one', strata: [] } as unknown as Level;
const stratum = (id: string) => ({ id }) as Stratum;
const copy = (message: HoldMessage) => deserialize(serialize(message)) as HoldMessage;

const put = (document: StratumDocument, id: string, x: number): void =>
  document.putAll([
    {
      document: document.id,
      kind: 'placement',
      id,
      record: { id, piece: x > 5 ? 'crate' : 'cart', position: [x, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] },
    },
    { document: document.id, kind: 'marker', id: `m${id}`, record: { id: `m${id}`, kind: 'spawn', turn: x } },
  ]);
const drop = (document: StratumDocument, id: string): void =>
  document.putAll([{ document: document.id, kind: 'placement', id, record: undefined }]);

type Step = readonly [
  kind: 'put' | 'drop' | 'many' | 'refill' | 'switch' | 'end' | 'lose',
  which: number,
  value: number,
];
const step: fc.Arbitrary<Step> = fc.tuple(
  fc.constantFrom('put', 'put', 'put', 'drop', 'many', 'refill', 'switch', 'end', 'lose'),
  fc.nat(1),
  fc.nat(12),
);

describe('documents that a worker holds', () => {
  it('are as in the page after any edits, refills, switched collections and ended workers', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const documents = [new StratumDocument('a'), new StratumDocument('b')];
        const sent = new SentDocuments();
        let held = new HeldDocuments();
        const tell = (): void => {
          for (const { message } of sent.messagesFor(documents)) held.take(copy(message));
        };
        for (const [kind, which, value] of steps) {
          const document = documents[which];
          if (kind === 'put') put(document, `p${value}`, value);
          else if (kind === 'drop') drop(document, `p${value}`);
          else if (kind === 'many') for (let i = 0; i < 1500; i++) put(document, `p${i % 20}`, value + i);
          else if (kind === 'refill') document.fill({ ...document.content(), marker: [] });
          else if (kind === 'switch') put((documents[which] = new StratumDocument(document.id)), 'new', value);
          else if (kind === 'lose') held = new HeldDocuments();
          else {
            held = new HeldDocuments();
            expect(sent.releases().every(({ type }) => type === 'release')).toBe(true);
          }
          tell();
          const lacking = held.lacking(versionsOf(documents));
          if (kind !== 'lose') expect(lacking).toEqual([]);
          sent.forget(lacking);
          tell();
          expect(held.lacking(versionsOf(documents))).toEqual([]);
          expect(held.level({ level, strata: [stratum('a'), stratum('b')], assemblies: [] })).toEqual(
            levelContent(
              level,
              documents.map((one) => ({ stratum: stratum(one.id), content: one.content() })),
              new Map(),
            ),
          );
        }
      }),
      { numRuns: 60 },
    );
  });

  it('say what they lack, and are let go of', () => {
    const document = new StratumDocument('a');
    put(document, 'p', 1);
    const sent = new SentDocuments();
    const held = new HeldDocuments();
    expect(held.lacking(versionsOf([document]))).toEqual(['a']);
    for (const { message } of sent.messagesFor([document])) held.take(copy(message));
    expect(held.lacking(versionsOf([document]))).toEqual([]);
    expect([...sent.messagesFor([document])]).toEqual([]);
    for (const message of sent.releases()) held.take(copy(message));
    expect(held.lacking(versionsOf([document]))).toEqual(['a']);
    expect(() => held.level({ level, strata: [stratum('a')], assemblies: [] })).toThrow(/holds no document a/);
  });

  it('are told of a moved object in little, of 100,000 placements too', () => {
    const document = new StratumDocument('a');
    for (let i = 0; i < 100000; i++) put(document, `p${i}`, i);
    const sent = new SentDocuments();
    const [whole] = [...sent.messagesFor([document])].map(({ message }) => serialize(message).length);
    put(document, 'p500', 7);
    const [change] = [...sent.messagesFor([document])].map(({ message }) => serialize(message).length);
    expect(whole).toBeGreaterThan(7e6);
    expect(change).toBeLessThan(1000);
  });
});
