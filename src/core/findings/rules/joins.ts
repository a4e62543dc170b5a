import { factsOf } from '../../body/feet'
import { twinsOf } from '../../combination/twins'
import { type Gap, gapsInto } from '../../joins/meets'
import { roundEnds } from '../../simulate/simulate'
import { endsAway } from '../../space/space'
import { COUNT, tick } from '../../time/time'
import type { Found } from '../finding'
import { type Danceable, type Rule, spotIn } from '../rule'

/** What does not meet where the combination repeats or switches, part by part (model 7). */
export const joins: Rule = {
  id: 'joins',
  *check(danceable) {
    const { simulation, joins: foot } = danceable
    const pass = simulation.passes.at(-1)
    const last = simulation.danced.at(-1)
    // What is danced once has nothing to join.
    if (!pass || simulation.combination.once) return
    const at = (layer: Found['spot']['layer']) => ({
      spot: spotIn(pass, tick(Math.max(pass.at, last?.at ?? 0)), layer),
      events: last?.pass.index === pass.index ? [last.event.id] : [],
    })
    if (last)
      yield {
        code: 'join.foot',
        ...foot,
        weight: simulation.end.weight,
        lead: simulation.combination.lead,
        ...lastOf(simulation.danced),
        bothSides: twinsOf(simulation.combination).size > 0,
        ...at('feet'),
      }
    if (!foot.repeats && !foot.switches) return
    yield* parts(danceable, (layer) => ({
      spot: spotIn(pass, tick(pass.at + pass.length - COUNT), layer),
      events: [],
    }))
    if (!last) return
    yield* floor(danceable, at('feet'))
  },
}

/** What the feet do last, holds and level words apart. */
function lastOf(danced: Danceable['simulation']['danced']): { last?: 'step' | 'touch' } {
  const last = danced.findLast(({ action }) => !factsOf(action.primitive).levelOnly)
  const { needs, lands } = factsOf(last?.action.primitive ?? 'hold')
  if (needs === 'free') return { last: 'step' }
  return needs === 'free-touch' && lands ? { last: 'touch' } : {}
}

function* parts(
  danceable: Danceable,
  where: (layer: Found['spot']['layer']) => Pick<Found, 'spot' | 'events'>,
): Generator<Found> {
  const { simulation, joins: foot } = danceable
  const repeat = foot.repeats ? gapsInto(simulation, 'repeat') : []
  const other = foot.switches ? gapsInto(simulation, 'switch') : []
  const isTwin = (gap: Gap) =>
    other.find(({ part, starts }) => part === gap.part && starts === gap.starts)
  const both = repeat.filter(isTwin)
  const all = [
    ...both.map((gap) => ({ gap, into: 'both' as const })),
    ...repeat.filter((gap) => !both.includes(gap)).map((gap) => ({ gap, into: 'repeat' as const })),
    ...other
      .filter((gap) => !both.some(({ part, starts }) => part === gap.part && starts === gap.starts))
      .map((gap) => ({ gap, into: 'switch' as const })),
  ]
  for (const { gap, into } of all) {
    // A way that can be made in time needs no word.
    if (gap.reach && gap.reach.has + 1e-9 >= gap.reach.needs) continue
    yield {
      code: `join.${gap.part}`,
      ends: gap.ends,
      starts: gap.starts,
      into,
      ...(gap.reach && { late: gap.reach }),
      ...where(gap.layer),
    }
  }
  const { from, to: end } = roundEnds(simulation)
  const goesOn = simulation.danced[0]
  if (end.level !== from.level && end.moment === undefined && goesOn)
    yield {
      code: 'join.level',
      ends: end.level,
      starts: from.level,
      into: foot.repeats && foot.switches ? 'both' : foot.repeats ? 'repeat' : 'switch',
      ...where('feet'),
    }
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** Rounds until front is front again (model 7). */
const roundsToFront = (turned: number): number =>
  turned % 360 === 0 ? 1 : 360 / gcd(360, Math.abs(turned))

function* floor(
  { simulation, joins: foot, house }: Danceable,
  where: Pick<Found, 'spot' | 'events'>,
): Generator<Found> {
  const { passes, combination } = simulation
  const { from, to: end } = roundEnds(simulation)
  const turned = end.facing - from.facing
  if (turned % 360 !== 0) {
    const rounds = foot.repeats || combination.keepTurns ? roundsToFront(turned) : 2
    const isWritten = passes.at(-1)?.phrase.facings?.some(({ degrees }) => degrees === end.facing)
    yield {
      code: 'join.facing',
      turned,
      facing: end.facing,
      rounds,
      severity: turned % 90 === 0 || isWritten ? 'note' : 'snag',
      ...where,
    }
  }
  const away = endsAway(simulation, foot.switches)
  if (Math.hypot(away.right, away.forward) > house.limits['join.travel'])
    yield { code: 'join.place', ...away, after: foot.switches ? 'both' : 'round', ...where }
}
