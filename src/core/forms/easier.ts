import { dequal } from 'dequal'
import { PALM_CM } from '../body/places'
import type { Event } from '../combination/combination'
import type { EventForm } from '../combination/forms'
import { easierForms, safeForm } from '../moves/easing'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { What } from '../what/kinds'
import { endsOf } from '../what/places'
import { sameSide } from './sameSide'

/** What something is danced as instead; undefined where it stays. */
type Form = (event: Pick<Event, 'what'>) => What | undefined

/**
 * What a form is danced as in place of something: on its side, and the way round it goes. Undefined
 * where that is nothing, or no move that is known.
 */
export function formOf(form: EventForm, as: What, vocabulary: Vocabulary): What | undefined {
  if ('none' in form) return undefined
  if ('move' in form) {
    const move = vocabulary.find(form.move)
    return move && sameSide(move, as, vocabulary)
  }
  return form.what
}

/** The easier forms of an event, the mildest first: its own, its move's, a plainer step, plainer arms. */
export function easierWhats(event: Event, vocabulary: Vocabulary): readonly Form[] {
  const { what, easier } = event
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const own = move ? easierForms(move, vocabulary) : []
  const forms: readonly EventForm[] = [
    // What is left out altogether is no form here: that is another way.
    ...(easier ?? []).filter((form) => !('none' in form)),
    ...own.filter((form) => !move || isAnother(form, move)).map(({ id }) => ({ move: id })),
  ]
  return [
    ...forms.map(
      (form): Form =>
        (one) =>
          formOf(form, one.what, vocabulary),
    ),
    ...plainerSteps(event),
    ...plainerArms(event, move),
  ]
}

/** The forms that spare neck and back. */
export function safeWhats({ what }: Event, vocabulary: Vocabulary): readonly Form[] {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const form = move && safeForm(move, vocabulary)
  return form ? [(one) => sameSide(form, one.what, vocabulary)] : []
}

/** A figure of the very same steps is no form of it. */
const isAnother = (form: Move, move: Move): boolean =>
  form.pattern.length === 0 || !dequal(form.pattern, move.pattern)

/** A plainer step that leaves the weight where this one does. */
function plainerSteps({ what }: Event): readonly Form[] {
  if (what.kind !== 'foot') return []
  const { primitive, contact, jump } = what.action
  switch (primitive) {
    case 'leap':
      return [(one) => step(one.what, 'step')]
    case 'kick':
    case 'brush':
      return [(one) => step(one.what, 'touch')]
    case 'hop':
      return [() => ({ kind: 'foot', action: { primitive: 'bend' } })]
    case 'jump':
      return jump === 'both' ? [() => ({ kind: 'foot', action: { primitive: 'bend' } })] : []
    default:
      return contact === 'ball' ? [(one) => flat(one.what)] : []
  }
}

const step = (what: What, primitive: 'step' | 'touch'): What | undefined =>
  what.kind === 'foot' ? { kind: 'foot', action: { ...what.action, primitive } } : undefined

function flat(what: What): What | undefined {
  if (what.kind !== 'foot') return undefined
  const { contact: _, ...action } = what.action
  return { kind: 'foot', action }
}

/** The two arms alike, at the lower of their places; a held place for a path. */
function plainerArms({ layer, what }: Event, move: Move | undefined): readonly Form[] {
  if (layer !== 'arms') return []
  if (what.kind === 'arms' && what.R && what.L && what.R !== what.L) {
    const [, up] = PALM_CM[what.R]
    const [, other] = PALM_CM[what.L]
    const place = up <= other ? what.R : what.L
    return [() => ({ kind: 'arms', R: place, L: place })]
  }
  if (move?.kind !== 'path') return []
  const { from, to } = endsOf(move, 'R')
  const place = (to.arms ?? from.arms)?.L
  return place ? [() => ({ kind: 'arms', R: place, L: place })] : []
}
