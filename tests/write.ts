import { type FootAction, factsOf, type Primitive } from '../src/core/body/feet'
import type { Layer } from '../src/core/body/layers'
import {
  type Combination,
  type Event,
  emptyCombination,
  type Phrase,
} from '../src/core/combination/combination'
import { dancedIn } from '../src/core/combination/lengths'
import { defaultStart } from '../src/core/combination/start'
import { readPattern } from '../src/core/moves/pattern'
import { vocabulary } from '../src/core/moves/vocabulary'
import { COUNT, endOf, slotAt, type Tick, tick, tickOfLabel } from '../src/core/time/time'
import type { What } from '../src/core/what/kinds'

const at = (label: string): Tick => {
  const found = tickOfLabel(label)
  if (found === undefined) throw new Error(`${label} is no count`)
  return found
}

/** `feet('1 step R side; 2 touch L together')` as events. */
export const feet = (pattern: string): readonly Event[] =>
  readPattern(pattern).map(({ at, action }, i) => ({
    id: `f${i}-${at}`,
    layer: 'feet',
    at,
    what: { kind: 'foot', action },
  }))

/** One event on another layer: `on('hips', '1-4', { kind: 'at', place: 'R' })`. */
export function on(layer: Layer, when: string, what: What, more: Partial<Event> = {}): Event {
  const [from = '', to] = when.split('-')
  const last = to === undefined ? undefined : at(to)
  return {
    id: `${layer}-${when}-${JSON.stringify(what)}`,
    layer,
    at: at(from),
    ...(last !== undefined && {
      length: tick(endOf({ at: last, length: slotAt(last) }) - at(from)),
    }),
    what,
    ...more,
  }
}

/** A move of the vocabulary at its usual length: `move('hip-drop', '5', 'R')`. */
export function move(id: string, when: string, side?: 'R' | 'L', more: Partial<Event> = {}): Event {
  const row = vocabulary.find(id)
  if (!row) throw new Error(`no move ${id}`)
  const what: What = { kind: 'move', move: id, ...(side && { side }) }
  return on(row.layer, when, what, more)
}

/** The events of a phrase with the time they are danced in written out. */
export const withLengths = (phrase: Phrase): readonly Event[] =>
  dancedIn(phrase, vocabulary).map(
    ({ ways: _, isCut: __, putsDown: ___, ...event }): Event => event,
  )

/** A combination of phrases A, B, C, each danced once, starting with the weight on L. */
export function combination(
  phrases: readonly (readonly Event[])[],
  more: Partial<Combination> = {},
): Combination {
  const empty = emptyCombination('c', 'A')
  const named = phrases.map((events, i) => {
    const name = String.fromCharCode(65 + i)
    const counts = Math.max(
      8,
      ...events.map((e) => Math.ceil((e.at + (e.length ?? COUNT)) / COUNT)),
    )
    const own = events.map((event) => ({ ...event, id: `${name}:${event.id}` }))
    return { id: name, name, title: '', counts, events: own }
  })
  return {
    ...empty,
    start: defaultStart('R'),
    phrases: named,
    order: named.map(({ id }) => ({ phrase: id, mirrored: false })),
    ...more,
  }
}

/** A few ways to do one thing with the feet: plain, turning, small and on the ball. */
export function readAll(primitive: Primitive): readonly FootAction[] {
  const facts = factsOf(primitive)
  const words = [
    primitive,
    facts.foot ? 'R' : '',
    primitive === 'jump' ? 'R' : '',
    primitive === 'pivot' ? '90' : '',
    facts.direction ?? '',
  ].filter(Boolean)
  const plain = `1 ${words.join(' ')}`
  const patterns = [plain, `${plain} small ball`]
  if (primitive !== 'hold' && primitive !== 'pivot') patterns.push(`${plain} turn -180`)
  return patterns.flatMap((pattern) => readPattern(pattern).map(({ action }) => action))
}
