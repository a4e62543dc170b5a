import { formName, nearestForm } from '../combination/forms'
import { TICKS_PER_COUNT } from '../time/time'
import { atTempo, type Closing, runsAt, TEMPO_TASKS } from './closing'
import type { PlanWishes } from './plan'
import type { Parts } from './shorten'
import { firstPasses, roundsThatFit, type Unit } from './teaching'

interface Room {
  /** Seconds there are. */
  readonly spare: number
  readonly closings: readonly Closing[]
  readonly wishes: PlanWishes
  readonly lasts: (unit: Unit) => number
  readonly isWanted: (unit: Unit) => boolean
  readonly switches: readonly Unit[]
}

/** A look at one thing after a run from the top, in seconds. */
const CORRECTION = 20
/** Counts of a run from the top after which a class may taste the music. */
const TASTED_COUNTS = 16

/** What time is left does, in this order, until it is gone (teaching 2.5). */
export function extended(parts: Parts, room: Room): Parts {
  const { closings, lasts, isWanted, wishes, switches } = room
  let now = parts
  let spare = room.spare
  const sum = ({ show, due, loops, each, runs }: Parts) =>
    [...show, ...due, ...loops, ...each, ...runs].reduce((all, unit) => all + lasts(unit), 0)
  /** Makes it so where there is time for it. */
  const take = (next: Parts): boolean => {
    const more = sum(next) - sum(now)
    if (more > spare) return false
    spare -= more
    now = next
    return true
  }
  const addRun = (units: readonly Unit[]) => {
    const wanted = units.filter(isWanted)
    // The last showing stays the last.
    const last = now.runs.findIndex(
      ({ task, combination }) => task === 'last-showing' && combination === wanted[0]?.combination,
    )
    const at = last < 0 ? now.runs.length : last
    return (
      wanted.length > 0 &&
      take({ ...now, runs: [...now.runs.slice(0, at), ...wanted, ...now.runs.slice(at)] })
    )
  }

  for (const closing of closings) enough(closing)
  for (const unit of switches) {
    const at = now.runs.findIndex(
      ({ combination, sides }) => combination === unit.combination && sides.length > 1,
    )
    if (at >= 0 && isWanted(unit))
      take({ ...now, runs: [...now.runs.slice(0, at), unit, ...now.runs.slice(at)] })
  }
  for (const [i, unit] of now.each.entries())
    if (unit.kind === 'join')
      take({ ...now, each: now.each.with(i, { ...unit, talk: unit.talk + CORRECTION }) })
  taste()
  const used = new Set(now.runs.flatMap(({ task }) => task ?? []))
  for (const task of TEMPO_TASKS)
    if (!used.has(task)) for (const closing of closings) addRun(atTempo(closing, task))
  for (const closing of closings) {
    const option = harderIn(closing)
    if (option !== undefined)
      addRun(
        atTempo(closing, 'harder').map((unit) => ({
          ...unit,
          option,
          talk: unit.talk + closing.teaching.house.limits['plan.talkSide'],
        })),
      )
    if (closing.teaching.house.dancers > 1)
      addRun(
        atTempo(closing, 'halves')
          .map((unit) => ({ ...unit, repeats: unit.repeats * 2 }))
          .filter(
            (unit) => lasts(unit) - unit.talk <= closing.teaching.house.limits['plan.longest'],
          ),
      )
  }
  return closings.reduce(listened, now)

  /** Raises the whole rounds of each phrase to what it needs, both sides alike. */
  function enough({ teaching }: Closing): void {
    const { material, level, house, slow } = teaching
    const goal = house.limits[`plan.enough.${level}`]
    for (const pass of firstPasses(material.lead.passes)) {
      const isOf = ({ combination, phrases }: Unit) =>
        combination === material.combination.id &&
        (phrases.length === 0 || phrases.includes(pass.phrase.id))
      const whole = now.each.findIndex(
        (unit) => unit.kind === 'all' && isOf(unit) && unit.phrases.length <= 1,
      )
      const own = now.each[whole]
      if (!own) continue
      const rounds = now.each
        .filter((unit) => (unit.kind === 'all' || unit.kind === 'join') && isOf(unit))
        .reduce((all, unit) => all + unit.repeats, 0)
      const counts = pass.length / TICKS_PER_COUNT
      for (let more = goal - rounds; more > 0; more--) {
        const repeats = roundsThatFit(own.repeats + more, counts, 1, slow, teaching)
        if (repeats <= own.repeats) break
        const raised = now.each.map((unit, i) =>
          i === whole ||
          (unit.kind === 'other-side' &&
            unit.layers.join() === own.layers.join() &&
            unit.phrases.join() === own.phrases.join() &&
            unit.combination === own.combination)
            ? { ...unit, repeats }
            : unit,
        )
        if (take({ ...now, each: raised })) break
      }
    }
  }

  /** One short taste of the music after the first run from the top that is worth it. */
  function taste(): void {
    if (wishes.type !== 'drop-in') return
    const at = now.each.findIndex(({ kind }) => kind === 'join')
    const join = now.each[at]
    const closing = closings.find(
      ({ teaching }) => teaching.material.combination.id === join?.combination,
    )
    if (!join || !closing) return
    const { passes } = closing.teaching.material.lead
    const danced = passes.filter(
      ({ phrase }) => join.phrases.length === 0 || join.phrases.includes(phrase.id),
    )
    const counts = danced.reduce((all, { length }) => all + length, 0) / TICKS_PER_COUNT
    if (counts < TASTED_COUNTS) return
    const [first] = runsAt(
      { ...closing, passes: danced, sides: join.sides.slice(0, 1) },
      join.tempo,
      'run',
      1,
    )
    if (!first) return
    const unit: Unit = { ...first, phrases: join.phrases, music: true }
    if (isWanted(unit))
      take({ ...now, each: [...now.each.slice(0, at + 1), unit, ...now.each.slice(at + 1)] })
  }
}

/**
 * Before a dance meets its music it is listened to, be it for a taste: the time for it stood
 * before the last showing until now.
 */
function listened(parts: Parts, { teaching: { house, material } }: Closing): Parts {
  const listen = house.limits['plan.listen']
  const all = [...parts.each, ...parts.runs]
  const isOwn = ({ combination }: Unit) => combination === material.combination.id
  const first = all.findIndex((unit) => isOwn(unit) && unit.music)
  const last = all.findIndex((unit) => isOwn(unit) && unit.task === 'last-showing')
  if (first < 0 || last < 0 || first === last) return parts
  const told = all.map((unit, i) =>
    i === first
      ? { ...unit, talk: unit.talk + listen }
      : i === last
        ? { ...unit, talk: Math.max(0, unit.talk - listen) }
        : unit,
  )
  const { length } = parts.each
  return { ...parts, each: told.slice(0, length), runs: told.slice(length) }
}

/** What who wants more may dance in a run: a flourish, or the harder form of the hardest thing. */
function harderIn({ teaching, passes, layers }: Closing): string | undefined {
  const { vocabulary } = teaching.material.lead
  const events = teaching.material
    .asEach(passes)
    .flatMap((own) => own.flatMap((pass) => pass.events))
    .filter(({ layer }) => layers.includes(layer))
  const flourish = events.find(({ optional, what }) => optional && what.kind === 'move')
  const nameOf = (id: string) => vocabulary.find(id)?.name.toLowerCase()
  if (flourish?.what.kind === 'move') return nameOf(flourish.what.move)
  const [hardest] = events
    .flatMap((event) => {
      const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
      const form = nearestForm(event, 'harder', vocabulary)
      return move && form
        ? [
            {
              demand: move.demand,
              words: `${formName(form, event.layer, vocabulary)} for ${move.name.toLowerCase()}`,
            },
          ]
        : []
    })
    .toSorted((a, b) => b.demand - a.demand)
  return hardest?.words
}
