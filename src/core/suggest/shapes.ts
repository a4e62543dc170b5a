/** A part of a shape: which motif, how many counts, and whether it is danced to the other side. */
export interface Slot {
  readonly motif: 'a' | 'b' | 'c'
  readonly counts: number
  readonly other: boolean
}

/** How a phrase is built: its parts in order, and how a teacher would call it. */
export interface Shape {
  readonly slots: readonly Slot[]
  readonly words: string
  /** How often it is chosen against others of its length. */
  readonly weight: number
}

const shape = (written: string, words: string, weight = 1): Shape => ({
  words,
  weight,
  slots: written.split(' ').map((part): Slot => {
    const [, motif, other, counts] = /^([abc])(~?)(\d)$/.exec(part) ?? []
    return { motif: motif as Slot['motif'], counts: Number(counts), other: other === '~' }
  }),
})

/** Shapes of a stretch by its counts, as phrases are built from figures of their usual length (h). */
const SHAPES: Readonly<Record<number, readonly Shape[]>> = {
  1: [shape('a1', 'one count')],
  2: [shape('a2', 'one move'), shape('a1 a~1', '1 and 1 to the other side', 2)],
  3: [shape('a2 b1', '2 and an ending'), shape('a1 a~1 b1', 'side, side, ending')],
  4: [
    shape('a2 a~2', '2 and 2 to the other side', 3),
    shape('a4', 'one figure of 4'),
    shape('a1 a~1 b2', 'quick quick slow', 2),
    shape('a2 b2', '2 and its answer'),
  ],
  5: [
    shape('a2 a~2 b1', '2 and 2 to the other side, and an ending', 2),
    shape('a4 b1', '4 and an ending'),
  ],
  6: [
    shape('a2 a~2 b2', '2, 2 to the other side, and an ending', 2),
    shape('a3 a~3', '3 and 3 to the other side'),
    shape('a4 b2', '4 and its answer'),
  ],
  7: [
    shape('a2 a~2 a2 b1', '2, 2, 2 and an ending', 2),
    shape('a3 a~3 b1', '3, 3 and an ending'),
    shape('a4 b2 c1', '4, its answer, and an ending'),
  ],
  8: [
    shape('a4 a~4', '4 and 4 to the other side', 4),
    shape('a2 a~2 b4', '2, 2 to the other side, and 4', 3),
    shape('a2 a~2 a2 a~2', 'four times 2, from side to side', 3),
    shape('a4 b2 b~2', '4, and its answer to both sides', 2),
    shape('a2 a~2 a2 b2', '6 and an ending', 2),
    shape('a3 a~3 b2', '3, 3 and 2', 2),
    shape('a2 a~2 b1 b~1 a2', 'slow slow quick quick slow', 2),
    shape('a2 b2 a2 b2', 'a move and its answer, twice', 2),
  ],
}

/** Longer stretches are eights, the second like the first or to the other side. */
const EIGHT = 8

const turned = ({ slots, words, weight }: Shape): Shape => ({
  words,
  weight,
  slots: slots.map((slot) => ({ ...slot, other: !slot.other })),
})

const joined = (one: Shape, two: Shape, words: string): Shape => ({
  slots: [...one.slots, ...two.slots],
  words,
  weight: one.weight,
})

/** The shapes a stretch of so many counts can have. */
export function shapesOf(counts: number): readonly Shape[] {
  const own = SHAPES[counts]
  if (own) return own
  if (counts <= 0) return []
  const rest = counts - EIGHT
  const first = SHAPES[EIGHT] ?? []
  if (rest === EIGHT)
    return first.flatMap((one) => [
      joined(one, one, `${one.words}; the same again`),
      joined(one, turned(one), `${one.words}; the same to the other side`),
    ])
  return first.flatMap((one) =>
    shapesOf(rest).map((two) => joined(one, two, `${one.words}; then ${two.words}`)),
  )
}

/** The same where what is meant for the other side is danced on the same one again: feet go where they are free. */
export const withoutSides = (words: string): string =>
  words
    .replaceAll('to the other side', 'again')
    .replaceAll(', from side to side', '')
    .replaceAll('to both sides', 'twice')
    .replaceAll('side, side', '1, 1')

/** Whether a motif comes back, as it was or to the other side. */
export const returns = ({ slots }: Shape): boolean =>
  slots.some(({ motif, counts }, i) =>
    slots.some((other, j) => j > i && other.motif === motif && other.counts === counts),
  )
