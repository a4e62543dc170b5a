import type { Event } from '../combination/combination'
import type { EventForm } from '../combination/forms'
import type { Leave } from '../combination/leaving'
import { quoted } from '../entry/tokens'
import type { Vocabulary } from '../moves/vocabulary'
import {
  fullLabelOfSpan,
  labelIn,
  labelOfEnd,
  type Numbering,
  TICKS_PER_COUNT,
  tick,
} from '../time/time'
import { kindOf, type What } from '../what/kinds'
import { moveText } from '../what/move'

/** When an event is danced: its start alone where nobody wrote how long it lasts. */
export function whenText({ at, length }: Pick<Event, 'at' | 'length'>, phrase: Numbering): string {
  const label = labelIn(phrase)
  return length === undefined ? label(at) : fullLabelOfSpan({ at, length }, label)
}

/** One entry of a layer line. */
export function entryText(event: Event, phrase: Numbering, vocabulary: Vocabulary): string {
  return `${event.optional ? '~' : ''}${whenText(event, phrase)} ${dancedText(event, vocabulary, phrase)}`
}

/** What is danced, without its time: `step R side`, `hip-drop L every 1 !keep`. */
export function dancedText(event: Event, vocabulary: Vocabulary, phrase: Numbering): string {
  const {
    at,
    held,
    what,
    size,
    rate,
    on,
    as,
    easier = [],
    harder = [],
    cue,
    note,
    words,
    leave = [],
    kept,
  } = event
  const move = what.kind === 'move' ? what : undefined
  return [
    kindOf(what).write(what, vocabulary),
    event.either && 'either',
    event.supported && 'supported',
    held !== undefined && `until ${labelOfEnd(tick(at + held), labelIn(phrase))}`,
    move?.every && `every ${everyText(move.every)}`,
    move?.alt && 'alt',
    viaText(what),
    size !== undefined && `size ${size}%`,
    rate !== undefined && `rate ${rate}`,
    on && 'on',
    as && `as ${quoted(as)}`,
    ...easier.map((form) => `easier ${formText(form, vocabulary)}`),
    ...harder.map((form) => `harder ${formText(form, vocabulary)}`),
    cue && `cue ${quoted(cue)}`,
    note && `note ${quoted(note)}`,
    words && `words ${quoted(words)}`,
    ...leave.map(leaveText),
    kept && '!keep',
  ]
    .filter(Boolean)
    .join(' ')
}

const formText = (form: EventForm, vocabulary: Vocabulary): string =>
  'none' in form
    ? 'none'
    : 'move' in form
      ? moveText(form.move, vocabulary)
      : `(${[kindOf(form.what).write(form.what, vocabulary), viaText(form.what)].filter(Boolean).join(' ')})`

const viaText = (what: What): string | undefined =>
  (what.kind === 'arms' || what.kind === 'move') && what.via ? `via ${what.via}` : undefined

export const leaveText = ({ code, because }: Leave): string => `leave ${code} ${quoted(because)}`

const everyText = (ticks: number): string =>
  ticks === 6 ? '&' : String(Math.round((ticks / TICKS_PER_COUNT) * 1e4) / 1e4)
