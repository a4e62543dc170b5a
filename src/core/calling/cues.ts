import type { Event } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import type { Simulation } from '../simulate/simulate'
import { numberWord } from './numbers'

/** What a cue announces; of two that collide the earlier in this list is said (model 11). */
export const CUE_KINDS = ['switch', 'phrase', 'turn', 'layer', 'accent'] as const
export type CueKind = (typeof CUE_KINDS)[number]

/** A word given early enough that the dancer can act on the count. */
export interface Cue {
  /** Ticks of the combination where what it announces begins. */
  readonly at: number
  readonly text: string
  readonly kind: CueKind
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

/** A phrase that only has a number is called by that as a word: no voice says digits. */
const phraseWords = (name: string): string =>
  `phrase ${/^\d+$/.test(name) ? numberWord(Number(name)) : name}`

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
  const written = starts.find(({ cue }) => cue !== undefined)
  if (before && before.phrase.id !== pass.phrase.id)
    cues.push({ at: pass.at, kind: 'phrase', text: written?.cue ?? phraseWords(pass.phrase.name) })
  const last = new Map<string, string>()
  for (const event of [...pass.events].sort((a, b) => a.at - b.at)) {
    if (!layers.includes(event.layer) || (event === written && cues.length > 0)) continue
    const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
    const text = event.cue ?? move?.cue ?? ''
    // The same move again changes nothing, so there is nothing to say; a written cue is meant.
    const isAgain = event.cue === undefined && last.get(event.layer) === text
    last.set(event.layer, text)
    if (text === '' || isAgain) continue
    const kind = turning.has(event.id) ? 'turn' : move?.kind === 'accent' ? 'accent' : 'layer'
    cues.push({ at: pass.at + event.at, kind, text })
  }
  for (const { kind, at, text } of pass.remarks)
    if (kind === 'say') cues.push({ at: pass.at + at, kind: 'layer', text })
  return cues
}
