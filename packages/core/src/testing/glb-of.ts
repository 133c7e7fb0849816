/** A GLB of a text, meant to be JSON, and some bytes. */
export function glbOf(text: string, binary: Uint8Array): Uint8Array {
  const json = Buffer.from(text.padEnd(Math.ceil(text.length / 4) * 4));
  const body = Buffer.concat([binary, Buffer.alloc((4 - (binary.length % 4)) % 4)]);
  const head = Buffer.alloc(20);
  head.write('glTF', 0, 'ascii');
  head.writeUInt32LE(2, 4);
  head.writeUInt32LE(28 + json.length + body.length, 8);
  head.writeUInt32LE(json.length, 12);
  head.write('JSON', 16, 'ascii');
  const chunk = Buffer.alloc(8);
  chunk.writeUInt32LE(body.length, 0);
  chunk.write('BIN\0', 4, 'ascii');
  return new Uint8Array(Buffer.concat([head, json, chunk, body]));
}
