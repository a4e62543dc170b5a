import { type Tick, tick } from '../time/time'
import { type Combination, type Event, lengthOf, type Phrase } from './combination'
import { mirrorEvent } from './mirror'

/** One dancing of a phrase: where it starts, and its events as they are danced then. */
export interface Pass {
  /** Its place in the order, from 0. */
  readonly index: number
  readonly phrase: Phrase
  /** Which time this phrase is danced, from 1. */
  readonly time: number
  /** How many times the phrase is danced in all. */
  readonly times: number
  readonly mirrored: boolean
  /** From the start of the combination. */
  readonly at: Tick
  readonly length: Tick
  readonly events: readonly Event[]
}

/** The order, written out. */
export function passesOf({ phrases, order }: Combination): readonly Pass[] {
  const byId = new Map(phrases.map((phrase) => [phrase.id, phrase]))
  const danced = new Map<string, number>()
  let at = 0
  return order.map((entry, index) => {
    const phrase = byId.get(entry.phrase)
    if (!phrase) throw new Error(`no phrase ${entry.phrase}`)
    const time = (danced.get(phrase.id) ?? 0) + 1
    danced.set(phrase.id, time)
    const pass = {
      index,
      phrase,
      time,
      times: order.filter((other) => other.phrase === entry.phrase).length,
      mirrored: entry.mirrored,
      at: tick(at),
      length: lengthOf(phrase),
      events: entry.mirrored ? phrase.events.map(mirrorEvent) : phrase.events,
    }
    at += pass.length
    return pass
  })
}

/** The pass danced at a tick; the last one for anything later. */
export const passAt = (passes: readonly Pass[], at: number): Pass | undefined =>
  passes.findLast((pass) => pass.at <= at) ?? passes[0]
