import type { Layer } from '../body/layers'
import { SIDES, type Side, sideWord } from '../body/side'
import { addRisks, NO_RISKS, type Risks, risksOver } from '../load/risk'
import type { Risk } from '../moves/move'
import { layerWord } from '../moves/vocabulary'
import { type Drill, titleOf } from './drill'
import { strainOf, weighed } from './fill'
import { countsPerSide, type Materials, roundOf, secondsOf } from './material'
import { classSeconds, type Plan } from './plan'
import { MOST_RISE } from './tempoSteps'
import { taughtKey } from './units'

/** Something about a plan that is worth a second look. */
interface PlanRemark {
  /** Id of the drill it is about; none where it is about the class. */
  readonly drill?: string
  readonly text: string
}

/** What a plan adds up to. */
export interface PlanTotals {
  readonly seconds: number
  /** Seconds the class has, less those; below 0 where it is too long. */
  readonly spare: number
  readonly counts: Readonly<Record<Side, number>>
  readonly risks: readonly { readonly risk: Risk; readonly times: number; readonly cap: number }[]
  readonly remarks: readonly PlanRemark[]
}

/** The names of the phrases a drill dances, in order. */
export function phraseNames(drill: Drill, materials: Materials): readonly string[] {
  const round = drill.moves ? undefined : roundOf(drill, materials)
  return round?.passes.map(({ phrase }) => phrase.name) ?? []
}

export const drillTitle = (drill: Drill, materials: Materials): string =>
  titleOf(drill, phraseNames(drill, materials))

/** Adds a plan up, and says what a colleague would remark. */
export function totalsOf({ wishes, drills }: Plan, materials: Materials): PlanTotals {
  const seconds = drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
  const isGone = ({ combination }: Drill) =>
    combination !== undefined && !materials.find(combination)
  const counts = { R: 0, L: 0 }
  let strain: Risks = NO_RISKS
  const remarks: PlanRemark[] = []
  const cap = (scope: 'drill' | 'class') => (risk: Risk) =>
    materials.house.limits[`risk.${scope}.${risk}`]
  for (const drill of drills) {
    const own = countsPerSide(drill, materials)
    for (const side of SIDES) counts[side] += own[side]
    const strained = strainOf(weighed(drill, materials))
    strain = addRisks(strain, strained)
    for (const risk of risksOver(strained, cap('drill')))
      remarks.push({
        drill: drill.id,
        text: `${strained[risk]} ${RISK_WORDS[risk]} in one drill, ${cap('drill')(risk)} are enough: fewer repeats, or the easier form.`,
      })
    if (!isGone(drill) && !roundOf(drill, materials))
      remarks.push({
        drill: drill.id,
        text: 'What it dances is no longer in the combination: take it out, or plan again.',
      })
  }
  const spare = classSeconds(wishes) - seconds
  if (spare < 0)
    remarks.push({
      text: `The class is ${minutesText(-spare)} too long: fewer repeats, or unlock a drill.`,
    })
  // How long a drill of a deleted combination takes can't be known until it is back.
  if (drills.some(isGone))
    remarks.push({ text: 'What the deleted combination takes is not added up here.' })
  else if (spare > 0)
    remarks.push({ text: `${minutesText(spare)} are free: unlock a drill, or add repeats.` })
  if (counts.R !== counts.L)
    remarks.push({
      text: `The ${sideWord[counts.R > counts.L ? 'L' : 'R']} side has ${Math.abs(counts.R - counts.L)} counts fewer than the other.`,
    })
  remarks.push(...orderRemarks(drills, materials, new Set(wishes.known.taught)))
  for (const risk of risksOver(strain, cap('class')))
    remarks.push({
      text: `${strain[risk]} ${RISK_WORDS[risk]} in the class, ${cap('class')(risk)} are enough: dance them smaller or take the easier form in some drills.`,
    })
  return {
    seconds,
    spare,
    counts,
    remarks,
    risks: (Object.keys(strain) as Risk[]).map((risk) => ({
      risk,
      times: strain[risk],
      cap: cap('class')(risk),
    })),
  }
}

export const RISK_WORDS: Readonly<Record<Risk, string>> = {
  neck: 'head rolls and whips',
  back: 'backbends',
  knees: 'deep bends',
  impact: 'jumps',
}

/** Layers that come on the feet before the feet, and tempos that rise too fast. */
function orderRemarks(
  drills: readonly Drill[],
  materials: Materials,
  taught: ReadonlySet<string>,
): readonly PlanRemark[] {
  const remarks: PlanRemark[] = []
  const known = new Set(taught)
  const tempos = new Map<string, number>()
  for (const drill of drills) {
    const round = roundOf(drill, materials)
    const id = drill.combination
    if (!round || id === undefined) continue
    const { passes } = round
    const onFeet = drill.layers.filter((layer) => layer !== 'feet')
    const isKnown = (layer: Layer) =>
      passes.every(
        ({ phrase, events }) =>
          known.has(taughtKey(id, phrase.id, layer)) ||
          !events.some((event) => event.layer === layer),
      )
    if (
      drill.layers.includes('feet') &&
      onFeet.length > 0 &&
      drill.kind !== 'review' &&
      !isKnown('feet')
    )
      remarks.push({
        drill: drill.id,
        text: `${onFeet.map((layer) => layerWord[layer]).join(', ')} on the feet before the feet alone: move the feet up.`,
      })
    const before = tempos.get(id)
    if (before !== undefined && drill.tempo > Math.ceil(before * MOST_RISE))
      remarks.push({
        drill: drill.id,
        text: `From ${before} to ${drill.tempo} at once: 12 % at a time is enough.`,
      })
    tempos.set(id, Math.max(before ?? 0, drill.tempo))
    if (drill.layers.includes('feet'))
      for (const { phrase } of passes)
        for (const layer of drill.layers) known.add(taughtKey(id, phrase.id, layer))
  }
  return remarks
}

/** `4 min 20 s`, `50 s`. */
export function minutesText(seconds: number): string {
  const minutes = Math.floor(seconds / 60)
  const rest = Math.round(seconds % 60)
  if (minutes === 0) return `${rest} s`
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`
}
