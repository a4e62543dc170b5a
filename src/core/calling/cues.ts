import type { ActId } from '../combination/carried'
import type { Event } from '../combination/combination'
import { cueWords } from '../combination/cueWords'
import type { Pass } from '../combination/passes'
import { calledWords } from '../combination/remarks'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { Simulation } from '../simulate/simulate'
import { labelIn } from '../time/time'

/** What a cue announces; of two that collide the earlier in this list is said (model 11). */
export const CUE_KINDS = [
  'switch',
  'section',
  'phrase',
  'meeting',
  'turn',
  'layer',
  'accent',
] as const
export type CueKind = (typeof CUE_KINDS)[number]

/** A word given early enough that the dancer can act on the count. */
export interface Cue {
  /** Ticks of the combination where what it announces begins. */
  readonly at: number
  readonly text: string
  readonly kind: CueKind
  /** What is said where the voice has no word for the text. */
  readonly or?: readonly string[]
  /** A later word of a move that has several: said as that part is danced, or only shown. */
  readonly isWithin?: true
}

/** What an event is called by: its own words, or those of its move. Several are read by `cueWords`. */
export const cueText = (event: Event, vocabulary: Vocabulary): string | undefined =>
  event.cue ??
  (event.what.kind === 'free' && event.layer === 'feet'
    ? (event.as ?? 'free')
    : event.what.kind === 'move'
      ? vocabulary.find(event.what.move)?.cue
      : undefined)

/** The words of a cue over its move, or over its first repeat, each at its part. */
export function cuesOver(
  text: string,
  { at, length, what }: Pick<Event, 'at' | 'what'> & { readonly length: number },
): readonly { readonly at: number; readonly text: string }[] {
  const words = cueWords(text)
  // Where the phrase ends before its first repeat does, all of them are said by then.
  const each = Math.min(length, (what.kind === 'move' && what.every) || length)
  return words.map((word, i) => ({ at: at + Math.floor((i * each) / words.length), text: word }))
}

/** What a song adds to the calling of what is danced to it, on the dance's ticks. */
export interface SongCalls {
  readonly cues: readonly Cue[]
  /** Whether the count at a tick is clicked and has its number: not where nobody hears one. */
  readonly isCounted: (tick: number) => boolean
}

/** Counts before its event by which a cue is over (model 11, house figures). */
export const leadOf = (kind: CueKind, { limits }: House): number =>
  limits[kind === 'layer' || kind === 'accent' ? 'call.lead' : 'call.leadBig']

const turnsAt = ({ danced }: Simulation, pass: Pass): ReadonlySet<string> =>
  new Set(
    danced
      .filter((one) => one.pass.index === pass.index && one.action.turn)
      .map(({ event }) => event.id),
  )

/** What a phrase is called where nothing of it has a word: never its letter, which is only printed. */
export const NEXT = 'next'

/** What a phrase is called by: what is said on its first count, its title, the cue of its first move (teaching 7.3). */
export function phraseWords(pass: Pass, first: string | undefined): readonly string[] {
  const said = pass.remarks.find(({ kind, at }) => kind === 'say' && at === 0)?.text
  return [said, pass.phrase.title, first, NEXT].flatMap((text) => (text ? [text] : []))
}

/** The cues of a pass: its own name where it follows another, then what each move says. */
export function cuesOf(
  simulation: Simulation,
  pass: Pass,
  layers: readonly Event['layer'][],
): readonly Cue[] {
  const { vocabulary, passes } = simulation
  const turning = turnsAt(simulation, pass)
  const cues: Cue[] = []
  const before = passes[pass.index - 1]
  const starts = pass.events.filter(({ at, layer }) => at === 0 && layers.includes(layer))
  if (before && before.phrase.id !== pass.phrase.id) {
    const [text = NEXT, ...or] = phraseWords(
      pass,
      starts.flatMap((event) => cueWords(cueText(event, vocabulary) ?? ''))[0],
    )
    cues.push({ at: pass.at, kind: 'phrase', text, or })
  }
  const last = new Map<string, string>()
  for (const event of [...pass.events].sort((a, b) => a.at - b.at)) {
    if (!layers.includes(event.layer)) continue
    const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
    const text = cueText(event, vocabulary) ?? ''
    // The same move again changes nothing, so there is nothing to say; a written cue is meant.
    const isAgain = event.cue === undefined && last.get(event.layer) === text
    last.set(event.layer, text)
    if (text === '' || isAgain) continue
    const kind = turning.has(event.id) ? 'turn' : move?.kind === 'accent' ? 'accent' : 'layer'
    for (const [i, word] of cuesOver(text, event).entries())
      cues.push({ ...word, at: pass.at + word.at, kind, ...(i > 0 && { isWithin: true }) })
  }
  if (layers.includes('arms'))
    for (const act of pass.acts) {
      const text = act.cue ?? CALLED_ACTS[act.act]
      if (text === undefined || act.to === 'none') continue
      cues.push({ at: pass.at + act.at, kind: 'layer', text })
    }
  const label = labelIn(pass.phrase)
  for (const remark of pass.remarks) {
    const text = calledWords(remark, label)
    if (text !== undefined) cues.push({ at: pass.at + remark.at, kind: 'layer', text })
  }
  return cues
}

/** What is done with what is carried and called by itself; the rest only where a cue is written. */
const CALLED_ACTS: Readonly<Partial<Record<ActId, string>>> = {
  over: 'over',
  under: 'under',
  frame: 'frame',
  drape: 'shoulders',
  'roll-in': 'roll in',
  unroll: 'roll out',
  throw: 'throw',
  catch: 'catch',
  pass: 'pass it',
}

/** What is named before a count-in, so that count 1 is no surprise (teaching 7.4). */
export interface Announcement {
  readonly text: string
  readonly or: readonly string[]
}
