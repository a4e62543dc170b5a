import { mirrorWhat } from '../combination/mirror'
import type { Pass } from '../combination/passes'
import type { Material } from './material'
import type { PlanWishes } from './plan'
import { firstPasses, type Teaching } from './teaching'
import { weightsOf } from './weight'

/** A way of teaching, and why it suits. */
export interface Proposed {
  readonly way: Exclude<PlanWishes['way'], 'propose'>
  readonly because: string
}

const feetKey = (pass: Pass): string =>
  pass.events
    .filter(({ layer }) => layer === 'feet')
    .map((event) => JSON.stringify([event.at, event.length, event.what]))
    .sort()
    .join()

const otherFeetKey = (pass: Pass): string =>
  feetKey({
    ...pass,
    events: pass.events.map((event) => ({ ...event, what: mirrorWhat(event.what) })),
  })

/** The phrase before that has the very same feet, from either side; none where it has its own. */
export function sameFeetBefore(pass: Pass, { lead }: Material): Pass | undefined {
  const feet = [feetKey(pass), otherFeetKey(pass)]
  return feet[0] === ''
    ? undefined
    : firstPasses(lead.passes).find(
        (other) => other.index < pass.index && feet.includes(feetKey(other)),
      )
}

/** New things a phrase has on average where its gestures are taught a count at a time. */
const MANY_THINGS = 4

/**
 * Layer by layer where a base repeats under layers that change, count by count where there is
 * more to say than to step, else phrase by phrase (teaching 1.6).
 */
export function proposeWay(teaching: Teaching): Proposed {
  const { material, level, house, slow } = teaching
  const first = firstPasses(material.lead.passes)
  const same = first.filter((pass) => sameFeetBefore(pass, material)).length
  if (first.length > 1 && same * 2 >= first.length - 1)
    return {
      way: 'layers',
      because: `the feet repeat in ${same + 1} of ${first.length} phrases while the layers change`,
    }
  const weights = first.map((pass) =>
    weightsOf(material, pass, { level, house, tempo: slow, met: new Set() }),
  )
  const things = weights.flat().flatMap((one) => one.things)
  const gestures = things.filter(({ layer }) => layer !== 'feet' && layer !== 'hips')
  const isHeavy = weights.flat().some(({ weight }) => weight === 'heavy')
  if (
    !isHeavy &&
    things.length >= MANY_THINGS * first.length &&
    gestures.length * 2 >= things.length
  )
    return {
      way: 'counts',
      because: 'most of it is gestures and nothing is heavy: all layers at once, a count at a time',
    }
  return first.length < 2
    ? { way: 'phrases', because: 'there is one phrase' }
    : {
        way: 'phrases',
        because: 'the feet change from phrase to phrase, so each is finished before the next',
      }
}
