import { LAYERS, type Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { type Materials, secondsOf } from '../plan/material'
import { stepsInOrder } from '../plan/phraseOrder'
import { MOST_MINUTES, type PlanWishes, wishesFor } from '../plan/plan'
import { taughtUnits } from '../plan/taughtUnits'
import { firstPasses, layersOf, type Teaching, teachingOf, type Unit } from '../plan/teaching'
import { proposeWay } from '../plan/ways'
import type { Routine } from '../routine/routine'
import { TICKS_PER_COUNT } from '../time/time'
import type { Series } from './series'
import type { SpreadUnit } from './spread'

/** What is taught in one go: a phrase by all its steps, or the feet of one and then the rest. */
export interface SeriesUnit extends SpreadUnit {
  readonly combination: string
  readonly phrase: string
  readonly name: string
  readonly title: string
  /** What its combination is called, where several are taught. */
  readonly of?: string
  /** Counts that are new in it. */
  readonly counts: number
  readonly half?: 'feet' | 'on'
  /** On both sides, else the lead side alone. */
  readonly isBoth: boolean
}

/** A combination of a series, and on which sides it is danced. */
interface Taught {
  readonly combination: Combination
  readonly isBoth: boolean
}

/** The combinations a series teaches, in order; those of a routine as they come in it. Gone ones are left out. */
export function taughtOf(
  { teaches }: Series,
  materials: Materials,
  routines: readonly Routine[],
): readonly Taught[] {
  const found = new Map<string, Taught>()
  const add = (id: string, isBoth: boolean) => {
    const combination = materials.find(id)?.combination
    if (combination && !found.has(id)) found.set(id, { combination, isBoth })
  }
  for (const one of teaches) {
    if ('combination' in one) add(one.combination, one.sides !== 'lead')
    else
      for (const { what } of routines.find(({ id }) => id === one.routine)?.pieces ?? [])
        if (what.kind === 'dance') add(what.combination, true)
  }
  return [...found.values()]
}

/** What a combination of a series is taught by. */
export const wishesIn = ({ wishes }: Series, { combination, isBoth }: Taught): PlanWishes => ({
  ...wishesFor(combination, wishes.level),
  level: wishes.level,
  way: wishes.way,
  type: wishes.type,
  sides: isBoth && !combination.order.some(({ mirrored }) => mirrored) ? 'both' : 'lead',
  minutes: MOST_MINUTES,
})

/** All units of a series, in the order they are taught; those that are left out are not among them. */
export function unitsOf(
  series: Series,
  materials: Materials,
  routines: readonly Routine[],
): readonly SeriesUnit[] {
  const all = taughtOf(series, materials, routines)
  return all.flatMap((taught) => {
    const own = unitsIn(series, taught, materials)
    const of = taught.combination.title
    return all.length > 1 && of ? own.map((unit) => ({ ...unit, of })) : own
  })
}

function unitsIn(series: Series, taught: Taught, materials: Materials): readonly SeriesUnit[] {
  const { combination } = taught
  const material = materials.find(combination.id)
  if (!material) return []
  const wishes = wishesIn(series, taught)
  const teaching = teachingOf(material, wishes, materials)
  const way = wishes.way === 'propose' ? proposeWay(teaching) : { way: wishes.way, because: '' }
  const { passes } = material.lead
  const phrases = [...new Set(passes.map(({ phrase }) => phrase.id))]
  // The feet of a phrase by themselves, where they may come before the rest.
  const only = phrases.flatMap((phrase) => {
    const key = `${combination.id}|${phrase}`
    return series.splits.includes(key)
      ? [{ combination: combination.id, phrase, feet: true as const }]
      : []
  })
  const whole = growingOf(teaching, stepsInOrder([teaching], [way]), materials)
  const feet = only.map((one) => ({
    phrase: one.phrase,
    seconds:
      growingOf(
        teaching,
        stepsInOrder([teaching], [{ ...way, way: 'phrases' }], [one]),
        materials,
      ).seconds.get(one.phrase) ?? 0,
  }))
  const sides = wishes.sides === 'both' ? 2 : 1
  return phrases.flatMap((phrase): readonly SeriesUnit[] => {
    const seconds = whole.seconds.get(phrase) ?? 0
    const pass = passes.find((one) => one.phrase.id === phrase)
    if (!pass || seconds === 0) return []
    const id = `${combination.id}|${phrase}`
    const load = material.loads(LAYERS, wishes.tempoTarget).reduce(
      (most, own) =>
        Math.max(
          most,
          own
            .filter(({ at }) => at >= pass.at && at < pass.at + pass.length)
            .reduce((sum, { total }) => sum + total, 0),
        ),
      0,
    )
    const run = ((pass.length / TICKS_PER_COUNT) * sides * 60) / wishes.tempoNow
    const common = {
      combination: combination.id,
      phrase,
      name: pass.phrase.name,
      title: pass.phrase.title ?? '',
      counts: pass.length / TICKS_PER_COUNT,
      isBoth: sides === 2,
    }
    const half = feet.find((one) => one.phrase === phrase)?.seconds ?? 0
    const all =
      half > 0 && half < seconds
        ? [
            {
              ...common,
              id: `${id}|feet`,
              seconds: half,
              load: load / 2,
              run: 0,
              half: 'feet' as const,
              isHalf: true,
            },
            {
              ...common,
              id: `${id}|on`,
              seconds: seconds - half,
              load: load / 2,
              run,
              half: 'on' as const,
            },
          ]
        : [{ ...common, id, seconds, load, run }]
    return series.dropped.includes(id) ? [] : all
  })
}

/** The layers a unit teaches. */
export function layersOfUnit(
  { combination, phrase, half }: SeriesUnit,
  materials: Materials,
): readonly Layer[] {
  if (half === 'feet') return ['feet']
  const material = materials.find(combination)
  const pass = firstPasses(material?.lead.passes ?? []).find((one) => one.phrase.id === phrase)
  return material && pass ? layersOf([pass], material) : LAYERS
}

/** What each phrase adds to what is taught: its steps, its other side, the run from the top to it. */
function growingOf(
  teaching: Teaching,
  steps: ReturnType<typeof stepsInOrder>,
  materials: Materials,
): { readonly seconds: ReadonlyMap<string, number> } {
  const lasts = (units: readonly Unit[]) =>
    units.reduce((sum, unit) => sum + secondsOf({ ...unit, id: '' }, materials), 0)
  const grown = (many: number) =>
    lasts(
      taughtUnits(
        teaching,
        steps.slice(0, many).map((one) => one.steps),
        many === steps.length,
      ),
    )
  const seconds = new Map<string, number>()
  let before = 0
  for (const [i, { steps: one }] of steps.entries()) {
    const now = grown(i + 1)
    const { id } = one.pass.phrase
    seconds.set(id, (seconds.get(id) ?? 0) + Math.max(0, now - before))
    before = now
  }
  return { seconds }
}
