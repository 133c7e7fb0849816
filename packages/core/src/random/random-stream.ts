/** A stream of reproducible random numbers. */
export interface RandomStream {
  /** Uniform in [0, 1), 32 bits of randomness. */
  next(): number;
  /** Uniform whole number in [0, limit), limit from 1 to 2^32. */
  below(limit: number): number;
  /** Uniform in [low, high). */
  between(low: number, high: number): number;
}

/**
 * Opens the stream of a seed. Integer arithmetic only, so every machine gives the same numbers.
 * Source: the sfc32 generator of Chris Doty-Humphrey's PractRand (public domain), seeded by FNV-1a over UTF-16 units.
 */
export function randomStream(seed: string): RandomStream {
  let a = hashWord(seed, 0x811c9dc5);
  let b = hashWord(seed, 0x9e3779b9);
  let c = hashWord(seed, 0x85ebca6b);
  let counter = 1;
  const word = (): number => {
    const sum = (((a + b) | 0) + counter) | 0;
    counter = (counter + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = ((c << 21) | (c >>> 11)) + sum;
    c |= 0;
    return sum >>> 0;
  };
  for (let i = 0; i < 12; i++) word();
  const next = (): number => word() / 4294967296;
  return {
    next,
    below: (limit) => Math.floor(next() * limit),
    between: (low, high) => low + (high - low) * next(),
  };
}

function hashWord(text: string, basis: number): number {
  let hash = basis | 0;
  for (let i = 0; i < text.length; i++) {
    hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  }
  return hash | 0;
}
