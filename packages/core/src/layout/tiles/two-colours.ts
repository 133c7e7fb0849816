/**
 * Two colours, 1 and 2, such that no two squares beside each other have the same, as on a chessboard.
 * @param around the squares beside each, both ways
 * @returns undefined when two colours do not do
 */
export function twoColours(around: readonly (readonly number[])[]): Uint8Array | undefined {
  const colours = new Uint8Array(around.length);
  for (let first = 0; first < around.length; first++) {
    if (colours[first] > 0) continue;
    colours[first] = 1;
    const waiting = [first];
    for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
      for (const other of around[i]) {
        if (colours[other] === colours[i]) return undefined;
        if (colours[other] > 0) continue;
        colours[other] = 3 - colours[i];
        waiting.push(other);
      }
    }
  }
  return colours;
}
