import { nameOf } from '../combination/names'
import { easierOf } from '../findings/rules/load'
import type { Drill } from './drill'
import { type Materials, roundOf } from './material'

/** What to look at, to offer and to take care of in a drill, from the moves in it. */
export interface DrillNotes {
  readonly watch: readonly string[]
  /** For who can't: what may be danced instead. */
  readonly easier: readonly { readonly of: string; readonly to: string; readonly event: string }[]
  readonly cautions: readonly string[]
}

const MOST_WATCHED = 2
const MOST_CAUTIONS = 3

/** The slips of the hardest moves first; every caution once. */
export function notesOf(drill: Drill, materials: Materials): DrillNotes {
  const round = roundOf(drill, materials)
  if (!round) return { watch: [], easier: [], cautions: [] }
  const { vocabulary } = round.material.lead
  const { from, to } = round
  const events = round.passes.flatMap((pass) =>
    pass.events.filter(
      ({ layer, at }) =>
        drill.layers.includes(layer) && pass.at + at < to && (at < 0 || pass.at + at >= from),
    ),
  )
  const danced = events
    .flatMap((event) => {
      const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
      return move ? [{ event, move }] : []
    })
    .sort((a, b) => b.move.demand - a.move.demand)
  const once = (texts: readonly string[]) => [...new Set(texts.filter(Boolean))]
  const easier = danced.flatMap(({ event }) => {
    const form = easierOf(event, vocabulary)
    return form
      ? [{ of: nameOf(event, vocabulary), to: form.name.toLowerCase(), event: event.id }]
      : []
  })
  return {
    watch: once(danced.map(({ move }) => move.watch)).slice(0, MOST_WATCHED),
    easier: [...new Map(easier.map((one) => [`${one.of} ${one.to}`, one])).values()].slice(0, 1),
    cautions: once(danced.map(({ move }) => move.care)).slice(0, MOST_CAUTIONS),
  }
}

/** Said at the start of every class. */
export const CLASS_CAUTION =
  'Warm first, without pain; knees soft, never locked; nobody within arm’s reach. Who is dizzy or hurts stops. Where pain stays, and in pregnancy or after an injury or operation, ask a doctor or physiotherapist: their word goes before this plan.'
