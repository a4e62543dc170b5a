// How well songs are heard: `node scripts/songs.mjs [SEED] [EACH]`, over made-up songs of every style.
import { type Listened, listen } from '../src/core/beats/listen'
import { agreement } from '../tests/pieces/agreement'
import { type Piece, somePieces } from '../tests/pieces/song'

const [seed = 77, each = 3] = process.argv.slice(2).map(Number)
const WITHIN_SECTION = 1

/** What is right of one piece: level, counts, bars, eights, sections, likeness, names, and seconds a minute of sound. */
function heardOf(piece: Piece): readonly number[] {
  const began = performance.now()
  const heard = listen(piece.samples, piece.rate)
  const took = (performance.now() - began) / 1000 / (piece.seconds / 60)
  if (typeof heard === 'string') return [0, 0, 0, 0, 0, 0, 0, took]
  const { counts, bars, ones, sections, tempo } = heard
  const first = piece.beats[0] as number
  const gap = ((piece.beats.at(-1) as number) - first) / (piece.beats.length - 1)
  const isLevel = [0.5, 1, 2].some((level) => Math.abs((tempo * gap) / 60 / level - 1) < 0.06)
  const at = (places: readonly number[]) => places.map((place) => counts[place] as number)
  const borders = sections.map((section) => section.at)
  return [
    Number(isLevel),
    agreement(counts, piece.beats),
    agreement(at(bars), piece.bars),
    agreement(at(ones), piece.ones),
    agreement(
      at(borders),
      piece.sections.map((section) => section.at),
      WITHIN_SECTION,
    ),
    ...namedOf(piece, heard),
    took,
  ]
}

/**
 * Of the sections that were found where they are: the share of pairs that are rightly alike or
 * not, and of those that are rightly named.
 */
function namedOf({ sections: truths }: Piece, { sections, counts }: Listened): readonly number[] {
  const met = sections.flatMap(({ at, kind, as }, i) => {
    const truth = truths.find((one) => Math.abs(one.at - (counts[at] as number)) < WITHIN_SECTION)
    return truth ? [{ truth: truth.kind, kind, like: as ?? i }] : []
  })
  const pairs = met.flatMap((one, i) => met.slice(i + 1).map((other) => [one, other] as const))
  const share = (right: number, of: number) => (of === 0 ? 1 : right / of)
  const alike = pairs.filter(([a, b]) => (a.truth === b.truth) === (a.like === b.like)).length
  return [
    share(alike, pairs.length),
    share(met.filter(({ truth, kind }) => truth === kind).length, met.length),
  ]
}

const all: (readonly number[])[] = []
const told = (row: readonly number[]) => row.map((value) => value.toFixed(3).padStart(8)).join('')
console.log(
  `${'piece'.padEnd(36)}   level  counts    bars  eights sections   alike   named s/minute`,
)
for (const make of somePieces(seed, each)) {
  const piece = make()
  const row = heardOf(piece)
  all.push(row)
  console.log(piece.name.padEnd(36) + told(row))
}
const mean = (all[0] ?? []).map(
  (_, k) => all.reduce((sum, row) => sum + (row[k] as number), 0) / all.length,
)
console.log(`mean of ${all.length}`.padEnd(36) + told(mean))
