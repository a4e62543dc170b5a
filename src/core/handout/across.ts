import { LAYERS, type Layer } from '../body/layers'
import type { DancedEvent } from '../combination/lengths'
import { nameOf } from '../combination/names'
import type { Pass } from '../combination/passes'
import type { Vocabulary } from '../moves/vocabulary'
import type { Simulation } from '../simulate/simulate'
import type { CountWords } from '../teaching/say'
import { sayAct } from '../teaching/sayProps'
import { labelIn, numberAt, TICKS_PER_COUNT, tick } from '../time/time'

/** A phrase as a table: a column a count, a row a layer that has something. */
export interface Across {
  readonly rows: readonly {
    readonly layer: Layer | 'carried' | 'say'
    readonly cells: readonly string[]
  }[]
}

const MOST_COUNTS = 8
/** What fits 18 mm: signs of one word, and of a cell. */
const MOST_WORD = 12
const MOST_CELL = 44

/** The same as a table, where its counts are few and its words fit; else it is written downwards. */
export function acrossOf(
  pass: Pass,
  words: readonly CountWords[],
  { vocabulary, combination: { carried = [] } }: Pick<Simulation, 'vocabulary' | 'combination'>,
): Across | undefined {
  const { counts } = pass.phrase
  if (counts > MOST_COUNTS) return undefined
  const inCount = (count: number, { at }: DancedEvent) => Math.floor(at / TICKS_PER_COUNT) === count
  const columns = Array.from({ length: counts }, (_, i) => i)
  const layers = LAYERS.filter((layer) => pass.events.some((event) => event.layer === layer))
  // What is done with what is carried is said as a sentence has it.
  const done = columns.map((count) =>
    pass.acts
      .filter(({ at }) => Math.floor(at / TICKS_PER_COUNT) === count)
      .map((act) =>
        sayAct(
          act,
          carried.find(({ id }) => id === act.prop),
        ),
      )
      .join('; '),
  )
  const rows = [
    ...layers.map((layer) => ({
      layer,
      cells: columns.map((count) =>
        pass.events
          .filter((event) => event.layer === layer && inCount(count, event))
          .sort((a, b) => a.at - b.at)
          .map((event) => cellOf(event, pass, vocabulary))
          .join('; '),
      ),
    })),
    ...(done.some(Boolean) ? [{ layer: 'carried' as const, cells: done }] : []),
    ...(words.some(({ cues }) => cues.length > 0)
      ? [{ layer: 'say' as const, cells: words.map(({ cues }) => cues.join(', ')) }]
      : []),
  ]
  const fits = rows.every(({ cells }) =>
    cells.every(
      (cell) =>
        cell.length <= MOST_CELL && cell.split(/[ -]/).every((word) => word.length <= MOST_WORD),
    ),
  )
  return fits ? { rows } : undefined
}

/** `hip bump R`, `& step L in-place`, `both high-v to 4`; a flourish with its sign. */
function cellOf(event: DancedEvent, { phrase }: Pass, vocabulary: Vocabulary): string {
  const { at, length, optional } = event
  const label = at % TICKS_PER_COUNT === 0 ? '' : `${labelIn(phrase)(tick(at))} `
  const last = Math.ceil((at + length) / TICKS_PER_COUNT) - 1
  const until =
    last > Math.floor(at / TICKS_PER_COUNT) &&
    // A step is there when it has landed; a figure goes on.
    event.what.kind !== 'foot'
      ? ` to ${numberAt(last * TICKS_PER_COUNT, phrase)}`
      : ''
  return `${optional ? '~ ' : ''}${label}${event.as ?? nameOf(event, vocabulary)}${until}`
}

/** Millimetres about: a heading with its last line, its counts, a line of a cell, and how many signs stand in one. */
const HEADING = 17
const COUNTS = 7
const LINE = 3.9
const SIGNS_A_LINE = 13

/** About how high a phrase comes to be, in millimetres, besides its pictures. */
export const heightOf = ({ rows }: Across): number =>
  rows.reduce(
    (sum, { cells }) =>
      sum +
      1 +
      LINE * Math.max(...cells.map(({ length }) => Math.ceil(length / SIGNS_A_LINE) || 1)),
    HEADING + COUNTS,
  )
