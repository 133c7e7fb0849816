/** A name beside what it names. */
export interface PlateLabel {
  readonly id: string;
  readonly text: string;
  /** Where it begins, and its base line, CSS pixels. */
  readonly x: number;
  readonly y: number;
  /** How much room what it names takes up, in square pixels: larger things keep their names longer. */
  readonly size: number;
  readonly colour: string;
  readonly alpha: number;
}

/** Labels that have room, and those that give way. */
export interface PlacedLabels {
  readonly shown: readonly PlateLabel[];
  readonly hidden: readonly PlateLabel[];
}

const ASCENT = 10;
const HEIGHT = 14;
const GAP = 2;
/** Labels are looked for in squares of this size. */
const SQUARE = 64;
/** No more than so many are tried: a plan holds far fewer, and the rest gives way. */
const MOST_TRIED = 3000;

interface Rectangle {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * Places labels so that none lies over another: by rank, then what is larger, then by id.
 * @param widthOf pixels of a text @param rankOf lower comes first
 */
export function placeLabels(
  labels: readonly PlateLabel[],
  widthOf: (text: string) => number,
  rankOf: (id: string) => number,
): PlacedLabels {
  const inOrder = [...labels].sort(
    (a, b) => rankOf(a.id) - rankOf(b.id) || b.size - a.size || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  );
  const squares = new Map<string, Rectangle[]>();
  const [shown, hidden]: PlateLabel[][] = [[], []];
  for (const [i, label] of inOrder.entries()) {
    if (i >= MOST_TRIED) {
      hidden.push(label);
      continue;
    }
    const rectangle = {
      left: label.x - GAP,
      top: label.y - ASCENT,
      right: label.x + widthOf(label.text) + GAP,
      bottom: label.y - ASCENT + HEIGHT,
    };
    const keys = squaresOf(rectangle);
    if (keys.some((key) => squares.get(key)?.some((other) => overlap(rectangle, other)))) {
      hidden.push(label);
      continue;
    }
    for (const key of keys) {
      const there = squares.get(key);
      if (there) there.push(rectangle);
      else squares.set(key, [rectangle]);
    }
    shown.push(label);
  }
  return { shown, hidden };
}

const overlap = (a: Rectangle, b: Rectangle): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

function squaresOf({ left, top, right, bottom }: Rectangle): string[] {
  const keys: string[] = [];
  for (let x = Math.floor(left / SQUARE); x <= Math.floor(right / SQUARE); x++)
    for (let y = Math.floor(top / SQUARE); y <= Math.floor(bottom / SQUARE); y++) keys.push(`${x},${y}`);
  return keys;
}

/** The label nearest to a point, within reach of where it begins. */
export function labelNear(labels: readonly PlateLabel[], x: number, y: number, reach = 18): PlateLabel | undefined {
  let best: PlateLabel | undefined;
  let least = reach;
  for (const label of labels) {
    const distance = Math.hypot(label.x - x, label.y - y);
    if (distance >= least) continue;
    least = distance;
    best = label;
  }
  return best;
}

/** Writes labels with a rim of the ground's colour, so that they are read over anything. */
export function writeLabels(
  context: CanvasRenderingContext2D,
  labels: readonly PlateLabel[],
  { font, ground }: { readonly font: string; readonly ground: string },
): void {
  context.font = font;
  context.strokeStyle = ground;
  context.lineWidth = 3;
  context.lineJoin = 'round';
  for (const { text, x, y, colour, alpha } of labels) {
    context.globalAlpha = alpha;
    context.fillStyle = colour;
    context.strokeText(text, x, y);
    context.fillText(text, x, y);
  }
  context.globalAlpha = 1;
}
