/**
 * What a part is known by wherever it is drawn, besides its colour: a shape in a box of 12 by 12,
 * the same in the braid, on the floor map, on a chest and on paper. In the order of the parts.
 */
const PART_MARKS: readonly string[] = [
  // A bead.
  'M6 1 A5 5 0 1 1 5.990 1 Z',
  // A leaf.
  'M6 0.5 C11 3 11 9 6 11.500 C1 9 1 3 6 0.500 Z',
  // A tile.
  'M1.500 1.500 H10.500 V10.500 H1.500 Z',
  // A tent.
  'M6 1 L11.500 11 H0.500 Z',
  // A lantern.
  'M3.500 1 H8.500 L11.500 6 L8.500 11 H3.500 L0.500 6 Z',
  // A kite.
  'M6 0.500 L10.500 4.500 L6 11.500 L1.500 4.500 Z',
  // Two waves.
  'M0.500 3 C3 0 5 6 7.500 3 C9 1.500 10.500 1.500 11.500 3 V9 C9 12 7 6 4.500 9 C3 10.500 1.500 10.500 0.500 9 Z',
  // A cross of ribbons.
  'M4 0.500 H8 V4 H11.500 V8 H8 V11.500 H4 V8 H0.500 V4 H4 Z',
]

/** The mark of a part by its place among the parts. */
export const partMark = (index: number): string => PART_MARKS[index % PART_MARKS.length] ?? ''
