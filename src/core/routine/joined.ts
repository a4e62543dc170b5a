import { otherSide } from '../body/side'
import type { Combination, Phrase } from '../combination/combination'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { applyRepair } from '../repair/apply'
import { editWords, repairFeet } from '../repair/feet'
import type { FeetEdit } from '../repair/feetEdit'
import { placeWords } from '../song/lines'
import type { Song } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { dancedTo } from './danced'
import { type Laid, laidOut } from './laid'
import type { Piece, Routine } from './routine'
import type { LaidPass } from './turns'

/** A pass that is danced otherwise here, as a combination of its own, and the routine with it. */
export interface Joined {
  readonly words: string
  /** What it costs beside others, by the house's figures (model 7). */
  readonly cost: number
  readonly made: Combination
  readonly routine: Routine
}

interface Border {
  readonly routine: Routine
  readonly song: Song
  readonly find: (id: string) => Combination | undefined
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly newId: () => string
}

/** What a change that is danced in one place only costs more (h). */
const OWN = 0.8

/**
 * The smallest changes of the feet that lead over a border, where the count is danced: in the
 * phrase before it or the one behind it, and nowhere else in the song.
 * @param at the count at which a foot does not fit
 */
export function joinedAt(at: number, border: Border): readonly Joined[] {
  const { routine, song, find, house, newId } = border
  const laid = laidOut(routine, song, find)
  const index = laid.passes.findIndex((pass) => pass.at <= at && at < pass.at + pass.counts)
  const window = windowOf(laid, index, border)
  if (!window) return []
  const vocabulary = vocabularyFor(laid.combination, border.vocabulary)
  return repairFeet(window, 'faults', vocabulary, house).flatMap(({ cost, edits }) => {
    const steps = edits.filter((edit) => 'phrase' in edit)
    if (edits.some(({ kind }) => kind === 'other-side' || kind === 'link')) return []
    const repaired = applyRepair(window, edits, vocabulary, newId)
    const changed = [0, 1].filter((i) => phraseAt(repaired, i) !== phraseAt(window, i))
    const [which] = changed
    if (which === undefined || changed.length > 1) return []
    const pass = laid.passes[index - 1 + which] as LaidPass
    const phrase = phraseAt(repaired, which) as Phrase
    const isOther = repaired.order[which]?.mirrored ?? false
    const danced = ownDance(pass, phrase, isOther, song, newId)
    if (!danced) return []
    return [
      {
        words: `Here only, ${steps.map((edit) => changeWords(edit, window, song, pass)).join('; ')}`,
        cost: cost + OWN,
        made: danced.made,
        routine: withOwnPass(routine, laid, pass, { ...danced, newId }),
      },
    ]
  })
}

const phraseAt = ({ order, phrases }: Combination, index: number): Phrase | undefined =>
  phrases.find(({ id }) => id === order[index]?.phrase)

/** The two passes that meet, as a combination that begins where the weight is by then. */
function windowOf(laid: Laid, index: number, border: Border): Combination | undefined {
  const { combination, passes } = laid
  const [before, after] = [passes[index - 1], passes[index]]
  if (!before?.combination || !after?.combination) return undefined
  const { lead } = dancedTo(laid, border.song, border.vocabulary, border.house)
  const weight = lead.slices[index - 1]?.entry.weight
  if (!weight) return undefined
  const order = combination.order.slice(index - 1, index + 1)
  return {
    ...combination,
    start: { ...combination.start, weight },
    phrases: combination.phrases.filter(({ id }) => order.some(({ phrase }) => phrase === id)),
    order,
  }
}

function ownDance(
  { combination, at }: LaidPass,
  phrase: Phrase,
  isOther: boolean,
  song: Song,
  newId: () => string,
): { readonly made: Combination; readonly what: Piece['what'] } | undefined {
  if (!combination) return undefined
  const { pickup: _, leave: __, ...own } = combination
  const id = newId()
  const title = `${combination.title}, ${placeWords(song, at)}`.slice(0, 120)
  const side = isOther ? otherSide[combination.lead] : combination.lead
  return {
    what: { kind: 'dance', combination: id, from: 0, side },
    made: {
      ...own,
      id,
      title,
      phrases: [{ ...phrase, id: `${id} phrase` }],
      order: [{ phrase: `${id} phrase`, mirrored: false }],
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
