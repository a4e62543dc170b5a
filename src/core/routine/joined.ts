import type { Combination, Phrase } from '../combination/combination'
import { phraseDanced } from '../combination/passes'
import { vocabularyFor } from '../moves/vocabulary'
import { applyRepair } from '../repair/apply'
import { editWords, repairFeet } from '../repair/feet'
import type { FeetEdit } from '../repair/feetEdit'
import { placeWords } from '../song/lines'
import type { Song } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import type { Border } from './border'
import { dancedTo } from './danced'
import { type Laid, laidOut } from './laid'
import { mendedWherever } from './mended'
import type { Piece, Routine } from './routine'
import type { LaidPass } from './turns'

/** A combination that is danced otherwise, here or wherever it lies, and the routine with it. */
export interface Joined {
  readonly words: string
  /** What it costs beside others, by the house's figures (model 7). */
  readonly cost: number
  readonly made: Combination
  readonly routine: Routine
}

/** What a change that is danced in one place only costs more (h). */
const OWN = 0.8

/**
 * The smallest changes of the feet that lead over a border, where the count is danced: in the
 * phrase before it or the one behind it, there and nowhere else in the song, or wherever that phrase
 * is danced in it.
 * @param at the count at which a foot does not fit
 */
export function joinedAt(at: number, border: Border): readonly Joined[] {
  const { routine, song, find, house, newId } = border
  const laid = laidOut(routine, song, find)
  const index = laid.passes.findIndex((pass) => pass.at <= at && at < pass.at + pass.counts)
  const before = laid.passes.findLastIndex((pass, i) => i < index && pass.combination)
  const window = before < 0 ? undefined : windowOf(laid, before, index, border)
  if (!window) return []
  const ends = [0, index - before]
  const vocabulary = vocabularyFor(laid.combination, border.vocabulary)
  return repairFeet(window, 'faults', vocabulary, house).flatMap(({ cost, edits }) => {
    const steps = edits.filter((edit) => 'phrase' in edit)
    if (edits.some(({ kind }) => kind === 'other-side' || kind === 'link')) return []
    const repaired = applyRepair(window, edits, vocabulary, newId)
    const changed = window.order.flatMap((_, i) =>
      phraseDanced(repaired, i) === phraseDanced(window, i) ? [] : i,
    )
    const [which] = changed
    if (which === undefined || changed.length > 1 || !ends.includes(which)) return []
    const pass = laid.passes[before + which] as LaidPass
    const phrase = phraseDanced(repaired, which) as Phrase
    const isMirrored = repaired.order[which]?.mirrored ?? false
    const change = steps.map((edit) => changeWords(edit, window, song, pass)).join('; ')
    const danced = ownDance(pass, phrase, isMirrored, song, newId)
    const mended = mendedWherever(phraseDanced(window, which), phrase, pass, { laid, ...border })
    return [
      ...(danced
        ? [
            {
              words: `Here only, ${change}`,
              cost: cost + OWN,
              made: danced.made,
              routine: withOwnPass(routine, laid, pass, { ...danced, newId }),
            },
          ]
        : []),
      ...(mended ? [{ ...mended, words: `${mended.where}, ${change}`, cost }] : []),
    ]
  })
}

/** Two passes that meet, and the rest between them, as a combination that begins where the weight is by then. */
function windowOf(
  { combination, passes, ...laid }: Laid,
  before: number,
  after: number,
  { song, vocabulary, house }: Border,
): Combination | undefined {
  if (!passes[after]?.combination) return undefined
  const { lead } = dancedTo({ ...laid, combination, passes }, song, vocabulary, house)
  const weight = lead.slices[before]?.entry.weight
  if (!weight) return undefined
  const order = combination.order.slice(before, after + 1)
  return {
    ...combination,
    start: { ...combination.start, weight },
    phrases: combination.phrases.filter(({ id }) => order.some(({ phrase }) => phrase === id)),
    order,
  }
}

function ownDance(
  { piece, combination, at }: LaidPass,
  phrase: Phrase,
  isMirrored: boolean,
  song: Song,
  newId: () => string,
): { readonly made: Combination; readonly what: Piece['what'] } | undefined {
  if (!combination || piece?.what.kind !== 'dance') return undefined
  const { side } = piece.what
  const { pickup: _, leave: __, ...own } = combination
  const id = newId()
  const title = `${combination.title}, ${placeWords(song, at)}`.slice(0, 120)
  return {
    what: { kind: 'dance', combination: id, from: 0, side },
    made: {
      ...own,
      id,
      title,
      phrases: [{ ...phrase, id: `${id} phrase` }],
      // It counts for the side its piece is danced from.
      order: [{ phrase: `${id} phrase`, mirrored: isMirrored !== (side !== combination.lead) }],
    },
  }
}

/** The piece of a pass in up to three: what is before it, the pass, and what goes on behind it. */
function withOwnPass(
  routine: Routine,
  laid: Laid,
  pass: LaidPass,
  { what, newId }: { readonly what: Piece['what']; readonly newId: () => string },
): Routine {
  const { piece, at, counts } = pass
  if (piece?.what.kind !== 'dance') return routine
  const end = piece.at + piece.counts
  const next = laid.passes.find((one) => one.at === at + counts)
  const rest: Piece = {
    ...piece,
    id: newId(),
    at: at + counts,
    counts: end - at - counts,
    what: { ...piece.what, from: next?.pass ?? 0 },
  }
  const parts = [
    { ...piece, counts: at - piece.at },
    { id: newId(), at, counts, what },
    rest,
  ].filter((one) => one.counts > 0)
  return { ...routine, pieces: routine.pieces.flatMap((one) => (one === piece ? parts : [one])) }
}

/** `at Chorus 3·8 touch R side in place of step R side`. */
function changeWords(
  edit: Extract<FeetEdit, { phrase: string }>,
  window: Combination,
  song: Song,
  { at }: LaidPass,
): string {
  const { from, to } = editWords(edit, window)
  const place = placeWords(song, at + Math.floor(edit.at / TICKS_PER_COUNT))
  return `at ${place}: ${to}${from ? ` in place of ${from}` : ''}`
}
