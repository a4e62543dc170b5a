import { SIDES, type Side, sideWord } from '../body/side'
import { risksOver } from '../load/risk'
import { Risk } from '../moves/move'
import { type Drill, isCounted, titleOf } from './drill'
import { countsPerSide, type Materials, roundOf, secondsOf } from './material'
import { classSeconds, type Plan, type PlanWishes } from './plan'
import { addStrain, mostOf, NO_STRAIN, type Strain, strainOf } from './strain'
import { taughtKey, teachingOf } from './teaching'

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
  if (round?.song) return [round.song.title]
  return round?.passes.map(({ phrase }) => phrase.name) ?? []
}

export const drillTitle = (drill: Drill, materials: Materials): string =>
  titleOf(drill, phraseNames(drill, materials))

/** The sides of a class differ by so much without a word: pieces are taught on the lead side (teaching 3.3). */
const UNEVEN = 0.15

/** Whether a step is danced, to a count or without. */
const isDanced = ({ combination, moves, song }: Drill): boolean =>
  combination !== undefined || moves !== undefined || song !== undefined

/** Whether no combination of a class is to be danced on its other side. */
const isLeadOnly = (wishes: PlanWishes, materials: Materials): boolean =>
  wishes.combinations
    .flatMap((id) => materials.find(id) ?? [])
    .every((material) => teachingOf(material, wishes, materials).which !== 'both')

/** Adds a plan up, and says what a colleague would remark. */
export function totalsOf({ wishes, drills }: Plan, materials: Materials): PlanTotals {
  const seconds = drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
  const isGone = ({ combination }: Drill) =>
    combination !== undefined && !materials.find(combination)
  const counts = { R: 0, L: 0 }
  let strain: Strain = NO_STRAIN
  const remarks: PlanRemark[] = []
  const cap = (scope: 'drill' | 'class') => (risk: Risk) =>
    materials.house.limits[`risk.${scope}.${risk}`]
  for (const drill of drills) {
    const own = countsPerSide(drill, materials)
    for (const side of SIDES) counts[side] += own[side]
    const each = strainOf(drill, materials)
    strain = addStrain(strain, each)
    const strained = mostOf(each)
    for (const risk of risksOver(strained, cap('drill')))
      remarks.push({
        drill: drill.id,
        text: `${strained[risk]} ${RISK_WORDS[risk]} in one drill, ${cap('drill')(risk)} are enough: fewer repeats, or the easier form.`,
      })
    if (isDanced(drill) && !isGone(drill) && !roundOf(drill, materials))
      remarks.push({
        drill: drill.id,
        text: drill.song
          ? 'Its song, or what was laid on it, is gone: take it out, or bring that back.'
          : 'What it dances is no longer in the combination: take it out, or plan again.',
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
  const more = Math.max(counts.R, counts.L)
  const behind = Math.abs(counts.R - counts.L)
  // Pieces are danced on the lead side only; one side alone is a wish.
  if (behind > more * UNEVEN && Math.min(counts.R, counts.L) > 0 && !isLeadOnly(wishes, materials))
    remarks.push({
      text: `The ${sideWord[counts.R > counts.L ? 'L' : 'R']} side has ${behind} counts fewer than the other.`,
    })
  remarks.push(...orderRemarks(drills, materials, new Set(wishes.known.taught)))
  const most = mostOf(strain)
  for (const risk of risksOver(most, cap('class')))
    remarks.push({
      text: `${most[risk]} ${RISK_WORDS[risk]} in the class, ${cap('class')(risk)} are enough: dance them smaller or take the easier form in some drills.`,
    })
  return {
    seconds,
    spare,
    counts,
    remarks,
    risks: Risk.options.map((risk) => ({
      risk,
      times: most[risk],
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

/** A layer that is counted on the feet before it was walked or counted alone, and tempos that rise too fast. */
function orderRemarks(
  drills: readonly Drill[],
  materials: Materials,
  taught: ReadonlySet<string>,
): readonly PlanRemark[] {
  const remarks: PlanRemark[] = []
  const known = new Set(taught)
  const tempos = new Map<string, number>()
  const last = new Map<string, number>()
  for (const [i, drill] of drills.entries())
    for (const phrase of drill.phrases)
      if (BEFORE_WHOLE.has(drill.kind)) last.set(`${drill.combination}|${phrase}`, i)
  for (const [i, drill] of drills.entries()) {
    const round = roundOf(drill, materials)
    const id = drill.combination
    if (!round || id === undefined || drill.kind === 'show') continue
    const { passes } = round
    // A piece that comes when its phrase was danced whole already.
    for (const { phrase } of WHOLE.has(drill.kind) ? passes : []) {
      const piece = last.get(`${id}|${phrase.id}`)
      const first = passes.every(({ phrase: own }) => !known.has(taughtKey(id, own.id, 'feet')))
      if (piece !== undefined && piece > i && first)
        remarks.push({
          drill: drill.id,
          text: `${phrase.name} is danced whole before ${titleOf(drills[piece] ?? drill, []).toLowerCase()}: move that up.`,
        })
    }
    if (!isCounted(drill)) continue
    const before = tempos.get(id)
    const most = materials.house.limits['plan.riseNone']
    if (before !== undefined && drill.tempo > Math.ceil(before * most))
      remarks.push({
        drill: drill.id,
        text: `From ${before} to ${drill.tempo} at once: put a tempo between.`,
      })
    tempos.set(id, Math.max(before ?? 0, drill.tempo))
    if (WHOLE.has(drill.kind))
      for (const { phrase } of passes)
        for (const layer of drill.layers) known.add(taughtKey(id, phrase.id, layer))
  }
  return remarks
}

/** What comes before a phrase is danced whole, and what dances it whole. */
const BEFORE_WHOLE: ReadonlySet<Drill['kind']> = new Set(['walk', 'alone', 'feet', 'on-feet'])
const WHOLE: ReadonlySet<Drill['kind']> = new Set(['all', 'join', 'sides', 'run', 'other-side'])

/** `4 min 20 s`, `50 s`. */
export function minutesText(seconds: number): string {
  const minutes = Math.floor(seconds / 60)
  const rest = Math.round(seconds % 60)
  if (minutes === 0) return `${rest} s`
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`
}
