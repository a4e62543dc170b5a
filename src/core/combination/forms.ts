import { z } from 'zod'
import type { Layer } from '../body/layers'
import type { Vocabulary } from '../moves/vocabulary'
import { kindOf, What } from '../what/kinds'

/** What is danced instead of something at another level: a move by its id, anything else of its layer, or nothing. */
export const EventForm = z.union([
  z
    .object({ move: z.string().min(1) })
    .strict()
    .readonly(),
  z.object({ what: What }).strict().readonly(),
  z
    .object({ none: z.literal(true) })
    .strict()
    .readonly(),
])
export type EventForm = z.infer<typeof EventForm>

/** Forms for one level after the other, the one that is nearest to what is written first. */
export const EventForms = z.array(EventForm).min(1).readonly()

/** What has forms for other levels. */
interface WithForms {
  readonly what: What
  readonly easier?: readonly EventForm[] | undefined
  readonly harder?: readonly EventForm[] | undefined
}

/** The form that is nearest to an event and is danced: its own, or its move's; undefined where it has none. */
export function nearestForm(
  { what, ...event }: WithForms,
  which: 'easier' | 'harder',
  vocabulary: Vocabulary,
): EventForm | undefined {
  const own = event[which]?.find((form) => !('none' in form))
  if (own) return own
  const id = what.kind === 'move' ? vocabulary.find(what.move)?.[which] : undefined
  return id && vocabulary.find(id) ? { move: id } : undefined
}

/** What a form is called. */
export function formName(form: EventForm, layer: Layer, vocabulary: Vocabulary): string {
  if ('none' in form) return 'nothing'
  if ('what' in form) return kindOf(form.what).name(form.what, { layer, vocabulary })
  return vocabulary.find(form.move)?.name.toLowerCase() ?? form.move
}
