import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { clockText } from '../time/clock'
import type { Tempo } from '../time/tempo'
import type { DrillKind, RunTask } from './drill'
import { type Materials, roundOf, secondsOf } from './material'
import type { Plan } from './plan'
import type { Proposal } from './planner'
import { drillTitle, minutesText, phraseNames, totalsOf } from './totals'
import { wordsOfPlan } from './words'

/** One step of a class as it is told outside the app. */
interface ToldStep {
  /** Seconds from the start of the class. */
  readonly at: number
  readonly seconds: number
  readonly kind: DrillKind
  readonly title: string
  readonly phrases: readonly string[]
  readonly layers: readonly Layer[]
  readonly side: readonly Side[]
  readonly rounds: number
  readonly tempo: Tempo
  readonly talk: number
  readonly say: readonly string[]
  readonly task?: RunTask
  readonly marked?: number
}

/** A class as text tools read it. */
export interface ToldPlan {
  readonly minutes: number
  readonly seconds: number
  readonly steps: readonly ToldStep[]
  /** What has no room in it. */
  readonly left: readonly string[]
  readonly warnings: readonly string[]
}

export function toldPlan(plan: Plan, proposal: Proposal, materials: Materials): ToldPlan {
  const totals = totalsOf(plan, materials)
  const words = wordsOfPlan(plan, materials)
  let at = 0
  return {
    minutes: plan.wishes.minutes,
    seconds: totals.seconds,
    steps: plan.drills.map((drill) => {
      const seconds = secondsOf(drill, materials)
      const start = at
      at += seconds
      const { say = [], easier = [] } = words.get(drill.id) ?? {}
      const isDanced = roundOf(drill, materials) !== undefined
      return {
        at: start,
        seconds,
        kind: drill.kind,
        title: drillTitle(drill, materials),
        phrases: [...new Set(phraseNames(drill, materials))],
        layers: isDanced ? drill.layers : [],
        side: isDanced && !drill.moves ? drill.sides : [],
        rounds: isDanced && drill.seconds === undefined ? drill.repeats : 0,
        tempo: drill.tempo,
        talk: drill.talk,
        say: [...say, ...easier.map((form) => `or: ${form}`)],
        ...(drill.task && { task: drill.task }),
        ...(drill.marked && { marked: drill.marked }),
      }
    }),
    left: proposal.left.map((unit) => drillTitle({ ...unit, id: 'left' }, materials)),
    warnings: totals.remarks.map(({ text }) => text),
  }
}

/** The same to be read: a line a step, and what is said below it. */
export function planText({ minutes, steps, left, warnings }: ToldPlan): string {
  const lines = steps.flatMap(({ at, title, seconds, say, rounds, side, tempo, talk }) => {
    const danced =
      rounds > 0
        ? `${side.length > 0 ? `${side.join(' ')} ` : ''}x${rounds}, ${tempo}${talk > 0 ? `, talk ${talk} s` : ''}`
        : talk > 0
          ? `talk ${talk} s`
          : ''
    return [
      `${clockText(at).padStart(6)}  ${title.padEnd(44)} ${minutesText(seconds).padEnd(12)} ${danced}`.trimEnd(),
      ...say.map((line) => `          ${line}`),
    ]
  })
  const missing = left.length > 0 ? [`No room for: ${left.join(', ')}`] : []
  return `${[`${minutes} minutes`, ...lines, ...missing, ...warnings].join('\n')}\n`
}
