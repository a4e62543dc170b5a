import { capital } from '../capital'
import { formName, nearestForm } from '../combination/forms'
import { nameOf } from '../combination/names'
import type { Drill } from './drill'
import { type Materials, roundOf } from './material'

/** What to look at and to offer in a drill, from the moves in it. */
export interface DrillNotes {
  readonly watch: readonly string[]
  /** For who can't: what may be danced instead. */
  readonly easier: readonly { readonly of: string; readonly to: string; readonly event: string }[]
}

const MOST_WATCHED = 2
const MOST_CAUTIONS = 3

/** A demand from which a move has a way out, be it to leave it out (teaching 8.1). */
const HARD = 3

/** The moves a drill dances, the hardest first. */
function movesIn(drill: Drill, materials: Materials) {
  const round = roundOf(drill, materials)
  if (!round) return []
  const { from, to } = round
  const { vocabulary } = round.material.lead
  return round.material
    .asEach(round.passes)
    .flat()
    .flatMap((pass) =>
      pass.events.filter(
        ({ layer, at }) =>
          drill.layers.includes(layer) && pass.at + at < to && (at < 0 || pass.at + at >= from),
      ),
    )
    .flatMap((event) => {
      const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
      return move ? [{ event, move, name: nameOf(event, vocabulary), vocabulary }] : []
    })
    .sort((a, b) => b.move.demand - a.move.demand)
}

const once = (texts: readonly string[]) => [...new Set(texts.filter(Boolean))]

/** The slips of the hardest moves first. */
export function notesOf(drill: Drill, materials: Materials): DrillNotes {
  const danced = movesIn(drill, materials)
  const easier = danced.flatMap(({ event, name, vocabulary }) => {
    const form = nearestForm(event, 'easier', vocabulary)
    return form ? [{ of: name, to: formName(form, event.layer, vocabulary), event: event.id }] : []
  })
  return {
    watch: once(danced.map(({ move }) => move.watch)).slice(0, MOST_WATCHED),
    easier: [...new Map(easier.map((one) => [`${one.of} ${one.to}`, one])).values()].slice(0, 1),
  }
}

/** What may be danced instead: for each hard move its nearest form, or without it; else the form of the hardest there is. */
export function waysOut(drill: Drill, materials: Materials): readonly string[] {
  const hard = movesIn(drill, materials)
    .filter(({ move, event }) => move.demand >= HARD && !event.optional)
    .map(({ event, name, vocabulary }) => {
      const form = nearestForm(event, 'easier', vocabulary)
      return form ? `${formName(form, event.layer, vocabulary)} for ${name}` : `without ${name}`
    })
  return hard.length > 0
    ? once(hard)
    : notesOf(drill, materials).easier.map(({ of, to }) => `${to} for ${of}`)
}

/** What the moves of a class ask to take care of, the hardest move first, each once: said at its start (teaching 10.2). */
export function cautionsOf(drills: readonly Drill[], materials: Materials): readonly string[] {
  const careful = drills
    .filter(({ kind }) => kind !== 'show')
    .flatMap((drill) => movesIn(drill, materials))
    .filter(({ move }) => move.care !== '')
    .sort((a, b) => b.move.demand - a.move.demand)
  return [...new Map(careful.map(({ move }) => [move.care, move.name]))]
    .slice(0, MOST_CAUTIONS)
    .map(([care, name]) => `${capital(name)}: ${care.charAt(0).toLowerCase()}${care.slice(1)}`)
}

/** Said at the start of every class. */
export const CLASS_CAUTION =
  'Warm first, without pain; knees soft, never locked; nobody within arm’s reach. Who is dizzy or hurts stops. Where pain stays, and in pregnancy or after an injury or operation, ask a doctor or physiotherapist: their word goes before this plan.'
