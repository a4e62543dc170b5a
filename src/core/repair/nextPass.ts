import type { Combination } from '../combination/combination'
import { loopIndex } from '../combination/loop'
import { pickupTicks, roundPickup } from '../combination/passes'
import { TICKS_PER_COUNT } from '../time/time'
import { type Behaviour, keyOfEntry } from './behaviours'
import { hundredths, type OrderEdit } from './feetEdit'
import { type Node, placeOf } from './node'
import { FALLEN, type Stance } from './stances'
import { endOf, NO_BEGIN, NO_END, type Search } from './tables'

/** All ways to dance the next pass. */
export function* steps(search: Search, node: Node): Generator<Node> {
  const { combination, house } = search
  const { order } = combination
  const entry = order[node.pass]
  if (!entry) return
  const { phrase } = entry
  const times = order.filter((one) => one.phrase === phrase).length
  const isRepeated = times > 1
  const isNeeded = order.slice(node.pass + 1).some((one) => one.phrase === phrase)
  const counts = combination.phrases.find(({ id }) => id === phrase)?.counts ?? 0
  const isFirst = phrase === order[0]?.phrase
  const from = node.pass === 0 ? -pickupTicks(combination) : isFirst ? 0 : NO_BEGIN
  const pickup = pickupBehind(combination, node.pass)
  const to = pickup > 0 ? Math.max(0, counts * TICKS_PER_COUNT - pickup) : NO_END
  const known = node.chosen.get(phrase)
  const twin = search.twins.get(node.pass)
  const pending = node.twins.get(node.pass)
  const { limits } = house
  const all = search.tables.get(phrase)?.behaviours ?? []
  // The first round of a search knows no entries yet: ask, so that they are noted.
  const ways: readonly (Behaviour | undefined)[] = all.length > 0 ? all : [undefined]
  const dance = (
    behaviour: Behaviour | undefined,
    flips: boolean,
    own: boolean,
  ): Node | undefined => {
    const mirrored = entry.mirrored !== flips
    const end = (stance: Stance, isMirrored: boolean) =>
      endOf(search, phrase, behaviour, { stance, mirrored: isMirrored, opening: false, from, to })
    const lead = end(node.lead, mirrored)
    const other = search.hasKept ? end(node.other, !mirrored) : FALLEN
    if (!behaviour || lead < 0 || (search.hasKept && other < 0)) return undefined
    const isTwin = pending !== undefined
    const isNew = !isTwin && (own || behaviour !== known)
    const own_: OrderEdit[] =
      own && !isTwin
        ? [
            {
              kind: 'own-phrase',
              pass: node.pass,
              ...(twin !== undefined && { twin }),
              cost: limits['repair.ownPhrase'],
            },
          ]
        : []
    const turned: OrderEdit[] = flips
      ? [{ kind: 'other-side', pass: node.pass, cost: limits['repair.otherSide'] }]
      : []
    const changed = isNew
      ? behaviour.edits.map((edit) => ({ ...edit, phrase, ...(own && { pass: node.pass }) }))
      : []
    const orderEdits = [...own_, ...turned]
    const added = [...changed, ...orderEdits]
    const chosen = own
      ? node.chosen
      : withChoice(node.chosen, phrase, isNeeded ? behaviour : undefined)
    const price = orderEdits.reduce((sum, { cost }) => sum + hundredths(cost), 0)
    // A phrase that comes again is paid in shares, or the search would put it off for ever.
    const apart = node.apart.get(phrase) ?? 0
    const share = own
      ? behaviour.cost + (known?.cost ?? 0) / times
      : (behaviour.cost / times) * (known ? 1 : 1 + apart)
    // Of two twins each pays its half of what is changed once.
    const halved = own && twin !== undefined ? 0.5 : 1
    const ownPrice = isTwin ? hundredths(limits['repair.ownPhrase']) : price
    const paid = node.paid + (ownPrice + share) * halved
    return {
      cost: node.cost + (isNew ? behaviour.cost : 0) + price,
      paid,
      least: paid + leastFrom(search, node.pass + 1, lead),
      apart: own && !known ? new Map(node.apart).set(phrase, apart + 1) : node.apart,
      edits: added.length > 0 ? [...node.edits, ...added] : node.edits,
      late: added.length > 0 ? placeOf(node.pass, behaviour.late) : node.late,
      pass: node.pass + 1,
      lead,
      other,
      chosen,
      twins: withTwin(node, own && !isTwin ? twin : undefined, behaviour),
      // What follows begins with the first phrase in which anything is danced.
      opening:
        node.opening ??
        (behaviour.first === undefined || node.pass < loopIndex(combination)
          ? undefined
          : { phrase, behaviour, mirrored }),
    }
  }
  // A twin is danced as the one before it was, and never on its own.
  if (pending) {
    const danced = dance(pending, false, true)
    if (danced) yield danced
    return
  }
  const mayBeOwn = isRepeated && (twin === undefined || (twin > node.pass && times > 2))
  const made: (Node | undefined)[] = []
  for (const flips of [false, true]) {
    if (known) made.push(dance(known, flips, false))
    else for (const behaviour of ways) made.push(dance(behaviour, flips, false))
    if (mayBeOwn)
      for (const behaviour of ways)
        if (!behaviour || behaviour.edits.length > 0) made.push(dance(behaviour, flips, true))
  }
  for (const one of made) if (one) yield one
}

/** How long the steps of a pickup take the end of a pass. */
function pickupBehind(combination: Combination, pass: number): number {
  const { order, phrases } = combination
  const isLast = pass === order.length - 1
  const every = isLast ? roundPickup(combination, 'feet') : 0
  const next = order[isLast ? loopIndex(combination) : pass + 1]?.phrase
  if (every > 0 || next === order[0]?.phrase) return every
  const steps = phrases
    .find(({ id }) => id === next)
    ?.events.filter(({ layer }) => layer === 'feet')
  return 0 - Math.min(0, ...(steps ?? []).map(({ at }) => at))
}

/** The twins still to come: without this pass, and with the one that is to be danced alike. */
function withTwin(
  { twins, pass }: Node,
  twin: number | undefined,
  behaviour: Behaviour,
): Node['twins'] {
  if (twin === undefined && !twins.has(pass)) return twins
  const next = new Map(twins)
  next.delete(pass)
  if (twin !== undefined) next.set(twin, behaviour)
  return next
}

function withChoice(
  chosen: Node['chosen'],
  phrase: string,
  behaviour: Behaviour | undefined,
): Node['chosen'] {
  if (chosen.get(phrase) === behaviour) return chosen
  const next = new Map(chosen)
  if (behaviour) next.set(phrase, behaviour)
  else next.delete(phrase)
  return next
}

/**
 * The least a search still has to pay from a pass on: every occurrence free to be changed as
 * it likes, and each paid by its share only.
 */
function leastFrom(search: Search, pass: number, stance: Stance): number {
  const { combination, house } = search
  const entry = combination.order[pass]
  if (!entry) return 0
  const key = pass * 1000 + stance
  const known = search.least.get(key)
  if (known !== undefined) return known
  const table = search.tables.get(entry.phrase)
  const isFirst = entry.phrase === combination.order[0]?.phrase
  const times = combination.order.filter(({ phrase }) => phrase === entry.phrase).length
  const turned = hundredths(house.limits['repair.otherSide'])
  let best = Number.POSITIVE_INFINITY
  let isUnknown = false
  for (const flips of [false, true]) {
    const mirrored = entry.mirrored !== flips
    const place = table?.index.get(
      keyOfEntry({
        stance,
        mirrored,
        opening: false,
        from: isFirst ? 0 : NO_BEGIN,
        to: NO_END,
      }),
    )
    if (place === undefined) isUnknown = true
    else
      for (const { cost, ends } of table?.behaviours ?? []) {
        const end = ends[place] ?? FALLEN
        const here = cost / times + (flips ? turned : 0)
        if (end < 0 || here >= best) continue
        best = Math.min(best, here + leastFrom(search, pass + 1, end))
      }
  }
  const least = isUnknown ? 0 : best
  search.least.set(key, least)
  return least
}
