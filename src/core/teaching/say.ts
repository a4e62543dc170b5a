import { facingWord } from '../body/facing'
import type { Layer } from '../body/layers'
import { sideWord } from '../body/side'
import { capital } from '../capital'
import type { PropAct } from '../combination/carried'
import type { Event, OptionKind } from '../combination/combination'
import { cueWords } from '../combination/cueWords'
import { formName } from '../combination/forms'
import type { DancedEvent } from '../combination/lengths'
import { asDanced } from '../combination/lengths'
import { mirrorPhrase } from '../combination/mirror'
import { nameOf } from '../combination/names'
import { optionWords, spanOf } from '../combination/options'
import { isRoundPickup, leadingInto, type Pass, pickupBefore } from '../combination/passes'
import type { Remark } from '../combination/remark'
import { calledWords, notedWords } from '../combination/remarks'
import type { Vocabulary } from '../moves/vocabulary'
import { type Simulation, stateAt } from '../simulate/simulate'
import {
  labelIn,
  labelOfEnd,
  labelOfSpan,
  type Numbering,
  numberOfCount,
  type Span,
  TICKS_PER_COUNT,
  type Tick,
  tick,
  tickOfCount,
} from '../time/time'
import { sayAction } from '../what/foot'
import { kindOf } from '../what/kinds'
import { sayAct } from './sayProps'

/** What to do on one count, in words a dancer can follow. */
export interface CountWords {
  readonly count: number
  /** What the feet do, with its label when it is not on the count itself. */
  readonly feet: readonly string[]
  /** The other layers that start here. */
  readonly layers: readonly { readonly layer: Layer; readonly text: string }[]
  /** Where the weight is when the count is over. */
  readonly weight: string
  /** Spoken cues written for this count, of a move or of the phrase. */
  readonly cues: readonly string[]
  /** What a page says beside it: easier forms, lyrics, notes, what is held, where it faces. */
  readonly asides: readonly string[]
}

/** `until 4`: where something ends that lasts longer than a count. */
function untilWords(event: Span, phrase: Numbering): string {
  if (event.length <= TICKS_PER_COUNT) return ''
  const label = labelIn(phrase)
  const last = labelOfSpan(event, label).split(/[->]/).at(-1) ?? ''
  return `, until ${last}`
}

/** `held to 3, then back`: where a place is held to a count. */
const heldWords = ({ until }: DancedEvent, phrase: Numbering): string | undefined =>
  until === undefined ? undefined : `, held to ${labelOfEnd(until, labelIn(phrase))}, then back`

/** What one event of another layer asks for. */
function sayEvent(event: DancedEvent, phrase: Numbering, vocabulary: Vocabulary): string {
  const { what } = event
  const until = heldWords(event, phrase) ?? untilWords(event, phrase)
  const maybe = event.optional ? 'if you like: ' : ''
  const already = event.on ? ', there on the count' : ''
  // What the instructor calls it is said as she writes it.
  const said =
    event.as && what.kind !== 'move' ? event.as : kindOf(what).say(what, { ...event, vocabulary })
  const either = event.either ? ', either side' : ''
  return `${maybe}${said}${either}${already}${until}`
}

/** What a page says beside a move: its easier and harder form, its lyric word, what was noted. */
function asidesOf(event: Event, vocabulary: Vocabulary): readonly string[] {
  const name = nameOf(event, vocabulary)
  const said = (which: 'easier' | 'harder') => {
    const forms = event[which]?.map((form) => formName(form, event.layer, vocabulary)) ?? []
    return forms.length > 0 ? [`${which} for ${name}: ${forms.join(', or ')}`] : []
  }
  return [
    ...said('easier'),
    ...said('harder'),
    ...(event.words ? [`words: “${event.words}”`] : []),
    ...(event.note ? [event.note] : []),
  ]
}

/** What is noted for a place and belongs to no move; what is said stands with the cues. */
const remarkWords = (remark: Remark, phrase: Numbering): readonly string[] => {
  const words = notedWords(remark)
  if (words === undefined) return []
  return [`${words}${remark.kind === 'note' ? '' : untilWords(remark, phrase)}`]
}

/** What to do on each count of a phrase, for the layers that are being practised. */
export function sayPass(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): readonly CountWords[] {
  return Array.from({ length: pass.phrase.counts }, (_, i) =>
    sayCount(simulation, pass, i + 1, layers, vocabulary),
  )
}

/** When the pickup of a pass is danced, over its lines on a page. */
export function pickupTitle({ combination, passes }: Simulation, { index }: Pass): string {
  if (index > 0) return `Over the end of ${passes[index - 1]?.phrase.name}`
  return isRoundPickup(combination) ? 'Before every round' : 'Before count 1'
}

/**
 * What the pickup of a pass asks for, count by count; empty without one. Each is called by the count it
 * has in an eight: the one before count 1 is the last of its phrase.
 */
export function sayPickup(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): readonly CountWords[] {
  const counts = pickupBefore(simulation.combination, pass.index) / TICKS_PER_COUNT
  return Array.from({ length: counts }, (_, i) =>
    sayCount(simulation, pass, i + 1 - counts, layers, vocabulary),
  )
}

/** An option of a phrase in words: what it is, and what is danced then on which counts. */
export interface OptionWords {
  readonly name: string
  readonly title: string
  readonly lines: readonly { readonly when: string; readonly text: string }[]
}

/** What may be danced otherwise in a pass, option by option. */
export function sayOptions(
  { phrase, mirrored }: Pass,
  vocabulary: Vocabulary,
): readonly OptionWords[] {
  const { options = [] } = mirrored ? mirrorPhrase(phrase) : phrase
  const label = labelIn(phrase)
  return options.map(({ name, kind, words, events, without = [] }) => ({
    name,
    title: `${name} (${OPTION_KIND_WORDS[kind]}): ${words}`,
    lines: [
      ...asDanced(events, phrase.counts, vocabulary).map((event) => ({
        at: event.at,
        when: label(event.at),
        text: capital(
          event.what.kind === 'foot'
            ? sayAction(event.what.action)
            : sayEvent(event, phrase, vocabulary),
        ),
      })),
      ...without.map((one) => ({
        at: one.at,
        when: labelOfSpan(spanOf(one), label),
        text: `Nothing on the ${one.layer} line`,
      })),
    ]
      .sort((a, b) => a.at - b.at)
      .map(({ when, text }) => ({ when, text })),
  }))
}

/** What a kind of option is called. */
export const OPTION_KIND_WORDS: Readonly<Record<OptionKind, string>> = {
  easier: 'easier',
  harder: 'harder',
  taste: 'if you like',
  room: 'where there is little room',
}

/** The options a pass is danced with, over its lines: `back half only, on the spot`. */
export const pickedWords = ({ phrase, options = [] }: Pass): string =>
  options.map((name) => optionWords(phrase, name)).join(', ')

function sayCount(
  simulation: Simulation,
  pass: Pass,
  count: number,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): CountWords {
  const { phrase } = pass
  const { facings = [] } = phrase
  const from = tickOfCount(count)
  const to = from + TICKS_PER_COUNT
  const isHere = ({ at }: { readonly at: number }) => at >= from && at < to
  const early = leadingInto(simulation.passes, pass)
  const leads = new Set(early.events.map(({ id }) => id))
  const here = [...early.events, ...pass.events].filter(isHere)
  const remarks = [...early.remarks, ...pass.remarks].filter(isHere)
  const acts = pass.acts.filter(isHere)
  const propOf = ({ prop }: PropAct) =>
    simulation.combination.carried?.find(({ id }) => id === prop)
  const steps = simulation.danced.filter(
    ({ at, pass: danced, event }) =>
      isHere({ at: at - pass.at }) &&
      (danced.index === pass.index || (danced.index === pass.index - 1 && leads.has(event.id))),
  )
  const { weight } = stateAt(simulation, pass.at + to - 1)
  const label = labelIn(phrase)
  const withLabel = (at: Tick, text: string): string =>
    at % TICKS_PER_COUNT === 0 ? capital(text) : `${label(at)}: ${text}`
  return {
    count: numberOfCount((count < 1 ? phrase.counts : 0) + count, phrase),
    feet: layers.has('feet')
      ? steps
          .filter(({ action }) => action.primitive !== 'free')
          .map(({ at, action, event }) =>
            withLabel(
              tick(at - pass.at),
              `${event.optional ? 'if you like: ' : ''}${sayAction(action)}`,
            ),
          )
      : [],
    layers: here
      .filter(
        (event) =>
          (event.layer !== 'feet' || event.what.kind === 'free') && layers.has(event.layer),
      )
      .map((event) => ({
        layer: event.layer,
        text: withLabel(event.at, sayEvent(event, phrase, vocabulary)),
      }))
      .concat(
        layers.has('arms')
          ? acts.map((act) => ({
              layer: 'arms' as const,
              text: withLabel(act.at, `${sayAct(act, propOf(act))}${untilWords(act, phrase)}`),
            }))
          : [],
      ),
    weight: weight === 'both' ? 'both feet' : `${sideWord[weight]} foot`,
    cues: [
      ...new Set([
        ...[...here, ...acts].flatMap(({ cue }) => (cue ? [cueWords(cue).join(', ')] : [])),
        ...remarks.flatMap((remark) => calledWords(remark, label) ?? []),
      ]),
    ],
    asides: [
      ...here
        .filter(({ layer }) => layers.has(layer))
        .flatMap((event) => asidesOf(event, vocabulary)),
      ...remarks.flatMap((remark) => remarkWords(remark, phrase)),
      ...facings
        .filter(isHere)
        .map(({ at }) => `facing ${facingWord(stateAt(simulation, pass.at + at).facing)}`),
    ],
  }
}
