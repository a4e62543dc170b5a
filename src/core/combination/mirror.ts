import { mirrorCompass, mirrorGaze, mirrorPartner } from '../body/places'
import { mirrorWeight, negated, otherSide } from '../body/side'
import { kindOf, type What } from '../what/kinds'
import type {
  Combination,
  Comment,
  Event,
  OneSide,
  Option,
  Phrase,
  Unread,
  WrittenFacing,
} from './combination'
import type { EventForm } from './forms'
import { mirrorBetween } from './mirrorBetween'
import { mirrorAct, mirrorProp } from './mirrorProps'
import { mirrorWords } from './mirrorWords'
import type { Part } from './part'
import type { Remark } from './remark'
import { mirrorRule } from './rules'
import type { Start } from './start'

export const mirrorWhat = (what: What): What => kindOf(what).mirror(what)

const mirroredEvents = new WeakMap<Event, Event>()

/**
 * The event from the other side; a kept one stays as written. The same event has the same
 * mirror image every time, so that what is known of it need not be worked out again.
 */
export function mirrorEvent(event: Event): Event {
  if (event.kept) return event
  const known = mirroredEvents.get(event)
  if (known) return known
  const made = imageOf(event)
  mirroredEvents.set(event, made)
  return made
}

/** Forms for other levels from the other side; the moves among them take theirs from the event. */
export const mirrorForms = <F extends readonly EventForm[] | undefined>(forms: F): F =>
  forms?.map((form) => ('what' in form ? { what: mirrorWhat(form.what) } : form)) as F

const imageOf = (event: Event): Event => ({
  ...event,
  what: mirrorWhat(event.what),
  ...(event.easier && { easier: mirrorForms(event.easier) }),
  ...(event.harder && { harder: mirrorForms(event.harder) }),
  ...(event.as !== undefined && { as: mirrorWords(event.as) }),
  ...(event.cue !== undefined && { cue: mirrorWords(event.cue) }),
  ...(event.note !== undefined && { note: mirrorWords(event.note) }),
})

/** A stance from the other side. */
export const mirrorStart = (start: Start): Start => ({
  ...start,
  weight: mirrorWeight(start.weight),
  hips: mirrorCompass(start.hips),
  ribs: mirrorCompass(start.ribs),
  arms: { R: start.arms.L, L: start.arms.R },
  gaze: mirrorGaze(start.gaze),
  ...(start.partner && { partner: mirrorPartner(start.partner) }),
  facing: negated(start.facing),
})

/** The other side of the whole combination. Mirroring twice gives back the original. */
export const mirror = ({ otherTurns, ...combination }: OneSide): OneSide => ({
  ...combination,
  ...(combination.keepTurns && !otherTurns && { otherTurns: true }),
  lead: otherSide[combination.lead],
  start: mirrorStart(combination.start),
  ...(combination.parts && { parts: combination.parts.map(mirrorPart) }),
  ...(combination.carried && { carried: combination.carried.map(mirrorProp) }),
  phrases: combination.phrases.map(mirrorPhrase),
  ...(combination.rules && { rules: combination.rules.map(mirrorRule) }),
  ...(combination.comments && { comments: combination.comments.map(mirrorText) }),
  ...(combination.unread && { unread: combination.unread.map(mirrorText) }),
})

/** What stands beside the moves as text names the other side too. */
const mirrorText = <T extends Comment | Unread>(one: T): T => ({
  ...one,
  text: mirrorWords(one.text),
})

const mirroredPhrases = new WeakMap<Phrase, Phrase>()

/** The same phrase has the same mirror image every time. */
export function mirrorPhrase(phrase: Phrase): Phrase {
  const known = mirroredPhrases.get(phrase)
  if (known) return known
  const made: Phrase = {
    ...phrase,
    title: mirrorWords(phrase.title),
    events: phrase.events.map(mirrorEvent),
    ...(phrase.remarks && { remarks: phrase.remarks.map(mirrorRemark) }),
    ...(phrase.between && { between: phrase.between.map(mirrorBetween) }),
    ...(phrase.props && { props: phrase.props.map(mirrorAct) }),
    ...(phrase.facings && {
      facings: phrase.facings.map(mirrorFacing),
    }),
    ...(phrase.options && { options: phrase.options.map(mirrorOption) }),
    ...(phrase.comments && { comments: phrase.comments.map(mirrorText) }),
    ...(phrase.unread && { unread: phrase.unread.map(mirrorText) }),
  }
  mirroredPhrases.set(phrase, made)
  return made
}

const mirrorOption = (option: Option): Option => ({
  ...option,
  words: mirrorWords(option.words),
  events: option.events.map(mirrorEvent),
})

export const mirrorFacing = (facing: WrittenFacing): WrittenFacing => ({
  ...facing,
  degrees: negated(facing.degrees),
})

const mirroredParts = new WeakMap<Part, Part>()

/** A dancer's place and stance on the other side, the very same each time. */
function mirrorPart(part: Part): Part {
  const known = mirroredParts.get(part) ?? {
    ...part,
    at: part.at.map(({ right, forward }) => ({ right: negated(right), forward })),
    ...(part.lead && { lead: otherSide[part.lead] }),
    ...(part.start && { start: mirrorStart(part.start) }),
  }
  mirroredParts.set(part, known)
  return known
}

/** Lyric words stay; what is said and noted names the other side. */
export const mirrorRemark = (remark: Remark): Remark =>
  remark.kind === 'words' || remark.kind === 'breath' || remark.kept
    ? remark
    : {
        ...remark,
        text: mirrorWords(remark.text),
        ...(remark.hand && { hand: otherSide[remark.hand] }),
      }

/** A text of a combination that says a side, and what the other side says. */
interface TurnedText {
  readonly from: string
  readonly to: string
}

/** The texts that change where the other side is written down, each once: what to read over. */
export function textsTurned(before: Combination, after: Combination): readonly TurnedText[] {
  const now = textsOf(after)
  const turned = textsOf(before).map((from, i) => ({ from, to: now[i] ?? '' }))
  return [
    ...new Map(
      turned.filter(({ from, to }) => from !== to).map((one) => [one.from, one] as const),
    ).values(),
  ]
}

const textsOf = ({ phrases, comments = [], unread = [] }: Combination): readonly string[] => [
  ...phrases.flatMap((phrase) => [
    phrase.title,
    ...(phrase.options ?? []).map(({ words }) => words),
    ...[...phrase.events, ...(phrase.options ?? []).flatMap(({ events }) => events)].flatMap(
      ({ as, cue, note }) => [as, cue, note].map((text) => text ?? ''),
    ),
    ...[...(phrase.remarks ?? []), ...(phrase.comments ?? []), ...(phrase.unread ?? [])].map(
      ({ text }) => text,
    ),
  ]),
  ...[...comments, ...unread].map(({ text }) => text),
]
