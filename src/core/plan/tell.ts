import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { clockText } from '../time/clock'
import type { Tempo } from '../time/tempo'
import type { Drill, DrillKind, RunTask } from './drill'
import { type Material, type Materials, roundOf, secondsOf } from './material'
import type { Plan } from './plan'
import type { Proposal } from './planner'
import { triesOf } from './talk'
import { teachingSteps } from './teachingSteps'
import { whoTitle, whoWords } from './teachTogether'
import { drillTitle, minutesText, phraseNames, totalsOf } from './totals'
import { type StepWords, wordsOfPlan } from './words'

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
  /** The talk in pieces of seconds, each of which ends in a try of what was shown. */
  readonly tries: readonly number[]
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

/** A drill with what is said before it. */
function stepTold(
  drill: Drill,
  at: number,
  words: StepWords | undefined,
  materials: Materials,
): ToldStep {
  const { say = [], easier = [] } = words ?? {}
  const isDanced = roundOf(drill, materials) !== undefined
  return {
    at,
    seconds: secondsOf(drill, materials),
    kind: drill.kind,
    title: drillTitle(drill, materials),
    phrases: [...new Set(phraseNames(drill, materials))],
    layers: isDanced ? drill.layers : [],
    side: isDanced && !drill.moves ? drill.sides : [],
    rounds: isDanced && drill.seconds === undefined ? drill.repeats : 0,
    tempo: drill.tempo,
    talk: drill.talk,
    tries: triesOf(drill.talk, materials.house),
    say: [...say, ...easier.map((form) => `or: ${form}`)],
    ...(drill.task && { task: drill.task }),
    ...(drill.marked && { marked: drill.marked }),
  }
}

/** The steps of a plan with what is said before each. */
function stepsTold(plan: Plan, materials: Materials): readonly ToldStep[] {
  const words = wordsOfPlan(plan, materials)
  let at = 0
  return plan.drills.map((drill) => {
    const step = stepTold(drill, at, words.get(drill.id), materials)
    at += step.seconds
    return step
  })
}

export function toldPlan(plan: Plan, proposal: Proposal, materials: Materials): ToldPlan {
  const totals = totalsOf(plan, materials)
  return {
    minutes: plan.wishes.minutes,
    seconds: totals.seconds,
    steps: stepsTold(plan, materials),
    left: proposal.left.map((unit) => drillTitle({ ...unit, id: 'left' }, materials)),
    warnings: totals.remarks.map(({ text }) => text),
  }
}

/** How a step is danced, and what is talked before it. */
function dancedText({ rounds, side, tempo, talk, tries }: ToldStep): string {
  const danced =
    rounds > 0 ? [`${side.length > 0 ? `${side.join(' ')} ` : ''}x${rounds}`, String(tempo)] : []
  const talked =
    talk > 0
      ? [tries.length > 1 ? `talk ${tries.join(' + ')} s, a try after each` : `talk ${talk} s`]
      : []
  return [...danced, ...talked].join(', ')
}

/** How a combination is taught, step by step, and who dances it where they are several: a page of its handout. */
export function taughtText(material: Material, materials: Materials): string {
  const { combination } = material
  const { steps, words, lookAt } = teachingSteps(material, materials)
  return steps
    .flatMap((one) => {
      const step = stepTold(one.drill, 0, words.get(one.drill.id), lookAt(one))
      const title = `${whoTitle(combination, one)}${step.title}`
      return [
        `${title.padEnd(44)} ${dancedText(step)}`.trimEnd(),
        ...[...whoWords(combination, one), ...step.say].map((line) => `    ${line}`),
      ]
    })
    .join('\n')
}

/** The same to be read: a line a step, and what is said below it. */
export function planText({ minutes, steps, left, warnings }: ToldPlan): string {
  const lines = steps.flatMap((step) => [
    `${clockText(step.at).padStart(6)}  ${step.title.padEnd(44)} ${minutesText(step.seconds).padEnd(12)} ${dancedText(step)}`.trimEnd(),
    ...step.say.map((line) => `          ${line}`),
  ])
  const missing = left.length > 0 ? [`No room for: ${left.join(', ')}`] : []
  return `${[`${minutes} minutes`, ...lines, ...missing, ...warnings].join('\n')}\n`
}
