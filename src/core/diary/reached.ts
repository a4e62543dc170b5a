import { LAYERS, type Layer } from '../body/layers'
import { type Side, sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Materials } from '../plan/material'
import type { Known, PlanWishes, Review } from '../plan/plan'
import { firstPasses, layersOf, taughtKey } from '../plan/teaching'
import { MOST_RISE } from '../plan/tempoSteps'
import type { Practised } from '../practice/sentPage'
import { clampTempo } from '../time/tempo'
import { changesSince, type TaughtAs } from './changes'
import { addDays, byDate, type ClassEntry, countsOn, daysBetween, type Verdict } from './diary'

/** How far a group has come with one phrase of a combination. */
export interface PhraseReached {
  readonly combination: string
  readonly combinationTitle: string
  readonly phrase: string
  readonly name: string
  /** Danced on the feet, floor up. */
  readonly layers: readonly Layer[]
  /** As it was taught last, where that is known. */
  readonly as: TaughtAs
  readonly counts: Readonly<Record<Side, number>>
  /** The fastest it was clean at; absent where it never was. */
  readonly cleanTempo?: number
  /** The tempo of the last time. */
  readonly lastTempo: number
  readonly lastDay: string
  readonly last?: Verdict
  /** Classes in a row that ended clean. */
  readonly streak: number
  /** When it should be danced again. */
  readonly due: string
  /** What students told of it: so many of those who sent something back are not there yet. */
  readonly told?: Pick<Practised, 'notYet' | 'of' | 'side'>
}

/** With what students told of what they practised: it weighs beside what was seen, and never stands for it. */
const withTold = (
  reached: readonly PhraseReached[],
  practised: readonly Practised[],
  materials: Materials,
): readonly PhraseReached[] =>
  reached.map((one) => {
    const told = practised.findLast(
      ({ combination, phrase }) => combination === one.combination && phrase === one.phrase,
    )
    const counts = materials
      .find(one.combination)
      ?.combination.phrases.find(({ id }) => id === one.phrase)?.counts
    if (!told || counts === undefined) return one
    const on = (side: Side) => one.counts[side] + Math.round(told.rounds[side] * counts)
    return { ...one, counts: { R: on('R'), L: on('L') }, told }
  })

/** More than half of those who told are not there yet. */
const isToldNotYet = ({ told }: PhraseReached): boolean =>
  told !== undefined && told.notYet * 2 > told.of

/** What was not yet clean is due at once; what was, after a week, then twice as long each time. */
const FIRST_GAP_DAYS = 6
const LONGEST_GAP_DAYS = 90

export const gapDays = (streak: number, last: Verdict | undefined): number =>
  last === 'not-yet' ? 0 : Math.min(LONGEST_GAP_DAYS, FIRST_GAP_DAYS * 2 ** Math.max(0, streak - 1))

/** How far some classes of one group have come, phrase by phrase, in the order they were first danced. */
export function reachedIn(classes: readonly ClassEntry[]): readonly PhraseReached[] {
  const reached = new Map<string, PhraseReached>()
  for (const one of [...classes].sort(byDate)) {
    const verdicts = new Map<string, Verdict | undefined>()
    for (const drill of one.danced) {
      const { combination, combinationTitle = '', phrases, layers, tempo, verdict } = drill
      if (combination === undefined || drill.rounds.R + drill.rounds.L === 0) continue
      for (const { id, name, as } of phrases) {
        const key = `${combination}|${id}`
        const before = reached.get(key)
        // A drill of several phrases is shared out by their number.
        const share = (side: Side) => Math.round(countsOn(drill, side) / phrases.length)
        const isOnFeet = layers.includes('feet')
        const clean =
          verdict === 'clean' ? Math.max(tempo, before?.cleanTempo ?? 0) : before?.cleanTempo
        verdicts.set(key, verdict ?? verdicts.get(key))
        reached.set(key, {
          combination,
          combinationTitle,
          phrase: id,
          name,
          layers: LAYERS.filter(
            (layer) => before?.layers.includes(layer) || (isOnFeet && layers.includes(layer)),
          ),
          as: { ...before?.as, ...as },
          counts: {
            R: (before?.counts.R ?? 0) + share('R'),
            L: (before?.counts.L ?? 0) + share('L'),
          },
          ...(clean !== undefined && { cleanTempo: clean }),
          lastTempo: tempo,
          lastDay: one.date,
          streak: before?.streak ?? 0,
          due: one.date,
        })
      }
    }
    for (const [key, verdict] of verdicts) {
      const now = reached.get(key)
      if (!now) continue
      const streak = verdict === 'clean' ? now.streak + 1 : verdict === 'not-yet' ? 0 : now.streak
      reached.set(key, {
        ...now,
        streak,
        ...(verdict && { last: verdict }),
        due: addDays(one.date, gapDays(streak, verdict)),
      })
    }
  }
  return [...reached.values()]
}

/** Classes a pace is read from, the latest ones, and the share of a class that is for what is new. */
const PACE_CLASSES = 5
const NEW_SHARE = 0.5

/**
 * Minutes a group has taken for eight new counts: the median of its last five classes with
 * anything new (teaching 2.8). Undefined where there are none; a guide, since half of each class
 * is taken to be for what is new (h).
 */
export function paceOf(classes: readonly ClassEntry[], materials: Materials): number | undefined {
  const met = new Set<string>()
  const paces: number[] = []
  for (const { danced, minutes } of [...classes].sort(byDate)) {
    let counts = 0
    for (const { combination, phrases, rounds } of danced) {
      if (combination === undefined || rounds.R + rounds.L === 0) continue
      const known = materials.find(combination)?.combination.phrases
      for (const { id } of phrases) {
        const key = `${combination}|${id}`
        if (met.has(key)) continue
        met.add(key)
        counts += known?.find((phrase) => phrase.id === id)?.counts ?? 0
      }
    }
    if (counts > 0) paces.push((minutes * NEW_SHARE * 8) / counts)
  }
  const last = paces.slice(-PACE_CLASSES).sort((a, b) => a - b)
  return last[Math.floor(last.length / 2)]
}

/** Which side of each combination had fewer counts, and by how many. */
export function weakerSides(reached: readonly PhraseReached[]): Known['weaker'] {
  const sums = new Map<string, { R: number; L: number }>()
  for (const { combination, counts } of reached) {
    const sum = sums.get(combination) ?? { R: 0, L: 0 }
    sums.set(combination, { R: sum.R + counts.R, L: sum.L + counts.L })
  }
  return Object.fromEntries(
    [...sums].flatMap(([id, { R, L }]) =>
      R === L
        ? []
        : [[id, { side: R < L ? ('R' as const) : ('L' as const), behind: Math.abs(R - L) }]],
    ),
  )
}

/**
 * What the planner is told of a group: what is due first, and what was changed since it was
 * taught, not yet clean before the rest; a
 * layer needs no teaching where it was danced on the feet and not left as not yet.
 */
export function knownOf(
  reached: readonly PhraseReached[],
  materials: Materials,
  today: string,
): Known {
  const due = reached
    .map((one) => ({ ...one, changed: changedOf(one, materials) }))
    .filter(
      (one) =>
        one.layers.length > 0 &&
        (daysBetween(one.due, today) >= 0 || one.changed.length > 0 || isToldNotYet(one)),
    )
    .sort(
      (a, b) =>
        Number(b.last === 'not-yet') - Number(a.last === 'not-yet') || a.due.localeCompare(b.due),
    )
  const reviews = due.map(
    (one): Review => ({
      combination: one.combination,
      phrases: [one.phrase],
      layers: [...one.layers],
      tempo: one.last === 'not-yet' ? clampTempo(one.lastTempo / MOST_RISE) : one.lastTempo,
      because: reasonFor(one, today),
      ...(one.changed.length > 0 && { changed: one.changed }),
    }),
  )
  const taught = reached.flatMap(({ combination, phrase, layers, last }) =>
    last === 'not-yet' ? [] : layers.map((layer) => taughtKey(combination, phrase, layer)),
  )
  return { reviews, taught, weaker: weakerSides(reached) }
}

/** What was changed of a phrase since it was taught. */
function changedOf(
  { combination, phrase, as }: PhraseReached,
  materials: Materials,
): readonly string[] {
  const material = materials.find(combination)
  const now = material?.combination.phrases.find(({ id }) => id === phrase)
  return material && now ? changesSince(as, now, material.lead.vocabulary) : []
}

function reasonFor(
  one: PhraseReached & { readonly changed: readonly string[] },
  today: string,
): string {
  const { last, lastDay, changed, told: sent } = one
  const days = daysBetween(lastDay, today)
  const ago = days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`
  const told = last === 'not-yet' ? `not yet clean ${ago}` : `last danced ${ago}`
  const back =
    sent && isToldNotYet(one)
      ? `, ${sent.notYet} of ${sent.of} sent back not yet on the ${sideWord[sent.side]}`
      : ''
  return changed.length > 0 ? `${told}${back}, and changed since` : `${told}${back}`
}

/** Reviews that are named one by one. */
const MOST_NAMED = 4

/** What a next class would be planned from. */
export interface NextClass {
  readonly wishes: PlanWishes
  /** Why, a sentence each. */
  readonly because: readonly string[]
}

/**
 * The class after these: what is due is reviewed, then comes what is new, the weaker side
 * first. Undefined where nothing was danced yet.
 * @param practised what students sent back of it
 */
export function nextClassOf(
  classes: readonly ClassEntry[],
  group: { readonly level: PlanWishes['level']; readonly minutes: number },
  materials: Materials,
  today: string,
  practised: readonly Practised[] = [],
): NextClass | undefined {
  const seen = reachedIn(classes).filter(({ combination }) => materials.find(combination))
  const reached = withTold(seen, practised, materials)
  const latest = reached.toSorted((a, b) => b.lastDay.localeCompare(a.lastDay))[0]
  if (!latest) return undefined
  const known = knownOf(reached, materials, today)
  const ids = [
    ...new Set([latest.combination, ...known.reviews.map(({ combination }) => combination)]),
  ].slice(0, 3)
  const combinations = ids.flatMap((id) => materials.find(id)?.combination ?? [])
  const own = reached.filter(({ combination }) => combination === latest.combination)
  const tempos = own.map(({ cleanTempo, lastTempo }) => cleanTempo ?? lastTempo)
  const because = [
    ...known.reviews
      .slice(0, MOST_NAMED)
      .map((review) => `${nameOfReview(review, reached)}: ${review.because}`),
    ...(known.reviews.length > MOST_NAMED
      ? [`and ${known.reviews.length - MOST_NAMED} more to review`]
      : []),
    ...Object.entries(known.weaker).flatMap(([id, { side, behind }]) => {
      const title = combinations.find((one) => one.id === id)?.title
      return title === undefined
        ? []
        : [`${title} begins on the ${side === 'R' ? 'right' : 'left'}: ${behind} counts behind`]
    }),
    ...combinations.flatMap((one) => newIn(one, materials, known)),
  ]
  return {
    because,
    wishes: {
      combinations: ids,
      minutes: group.minutes,
      level: group.level,
      tempoNow: clampTempo(Math.min(...tempos)),
      tempoTarget: materials.find(latest.combination)?.combination.tempo ?? latest.lastTempo,
      way: 'propose',
      seen: 'some',
      known,
      type: 'drop-in',
      sides: 'propose',
    },
  }
}

const nameOfReview = (
  { combination, phrases }: Review,
  reached: readonly PhraseReached[],
): string => {
  const one = reached.find((each) => each.combination === combination && each.phrase === phrases[0])
  return one ? `${one.combinationTitle} ${one.name}` : ''
}

/** What a combination still has that was not taught. */
function newIn(
  { id, title }: Combination,
  materials: Materials,
  { taught }: Known,
): readonly string[] {
  const known = new Set(taught)
  const material = materials.find(id)
  if (!material) return []
  const fresh = firstPasses(material.lead.passes).filter((pass) =>
    layersOf([pass], material).some((layer) => !known.has(taughtKey(id, pass.phrase.id, layer))),
  )
  return fresh.length === 0
    ? []
    : [`${title}: ${fresh.map(({ phrase }) => phrase.name).join(', ')} still to teach`]
}
