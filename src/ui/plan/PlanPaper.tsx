import { blocksOf } from '../../core/plan/blocks'
import { HOLDS } from '../../core/plan/coolDown'
import { type Drill, isCounted, titleOf } from '../../core/plan/drill'
import { type Lanes, lanesFor } from '../../core/plan/lanes'
import { type Materials, secondsOf } from '../../core/plan/material'
import { CLASS_CAUTION, cautionsOf } from '../../core/plan/notes'
import type { Plan } from '../../core/plan/plan'
import { triesOf } from '../../core/plan/talk'
import { minutesText } from '../../core/plan/totals'
import { type StepWords, wordsOfPlan } from '../../core/plan/words'
import { laterBy } from '../../core/time/timeOfDay'
import { LaneLines } from './LaneLines'
import classes from './plan.module.css'

/** Lines that are said on paper before a step; the screen has the rest. */
const MOST_SAID = 2

/** The class on one page, read from the floor: blocks, in each a line a step; only on paper. */
export function PlanPaper({
  plan,
  lanes,
  materials,
}: {
  readonly plan: Plan
  readonly lanes: ReadonlyMap<string, Lanes>
  readonly materials: Materials
}) {
  const { startsAt, minutes } = plan.wishes
  const blocks = blocksOf(plan.drills, materials)
  const words = wordsOfPlan(plan, materials)
  const cautions = [...cautionsOf(plan.drills, materials), CLASS_CAUTION]
  const stands = new Map(
    plan.drills.map(({ id, stand, combination }, i) => {
      const before = plan.drills.slice(0, i).findLast((one) => one.combination !== undefined)
      return [id, combination !== undefined && stand !== before?.stand ? stand : undefined]
    }),
  )
  // Many steps get smaller type, so that it stays one page.
  const lines = plan.drills.length + blocks.length
  const size = lines > 60 ? 'most' : lines > 38 ? 'many' : lines > 22 ? 'some' : 'few'
  return (
    <article className={classes.paper} data-size={size} aria-hidden>
      <h1 className="display">
        {plan.title || 'Class'}{' '}
        <span>
          {minutes} min{startsAt && `, from ${startsAt}`}
        </span>
      </h1>
      <ol>
        {blocks.map(({ title, drills, at, seconds }) => (
          <li key={at}>
            <b className="counts">{startsAt ? laterBy(startsAt, at) : `${Math.floor(at / 60)}′`}</b>
            <div>
              <h2>
                {title} <i className="counts">{minutesText(seconds)}</i>
              </h2>
              {drills.map((drill) => (
                <PaperStep
                  key={drill.id}
                  drill={drill}
                  isOnly={drills.length === 1}
                  words={words.get(drill.id)}
                  lanes={lanesFor(drill, lanes, materials)}
                  stand={stands.get(drill.id)}
                  seconds={secondsOf(drill, materials)}
                  tries={triesOf(drill.talk, materials.house)}
                />
              ))}
            </div>
          </li>
        ))}
      </ol>
      <p>{cautions.join(' ')}</p>
    </article>
  )
}

/** One step: what, rounds, tempo; below it what is said, what may be danced instead, and how to stand where that changes. */
function PaperStep({
  drill,
  isOnly,
  words,
  lanes,
  stand,
  seconds,
  tries,
}: {
  readonly drill: Drill
  readonly isOnly: boolean
  readonly words: StepWords | undefined
  readonly lanes: Lanes | undefined
  readonly stand: Drill['stand'] | undefined
  readonly seconds: number
  /** Pieces of its talk, each of which ends in a try. */
  readonly tries: readonly number[]
}) {
  const counted = isCounted(drill)
    ? `${drill.moves ? '' : `${drill.sides.join(' ')} `}× ${drill.repeats} · ${drill.tempo}`
    : ''
  // The cautions stand once, below.
  const held = drill.holds?.flatMap((id) => HOLDS.find((hold) => hold.id === id)?.name ?? [])
  const say =
    held && !words?.isOwn
      ? [held.join(', ')]
      : (words?.say ?? []).filter((line) => line !== CLASS_CAUTION).slice(0, MOST_SAID)
  return (
    <p className={classes.paperStep}>
      {!(isOnly && !counted) && (
        <span>
          {titleOf(drill, [])}
          {drill.half && ` ${drill.half.from}-${drill.half.to}`} <i className="counts">{counted}</i>{' '}
          <i className="counts">{minutesText(seconds)}</i>
          {tries.length > 1 && (
            <i className="counts"> talk {tries.join(' + ')} s, try after each</i>
          )}
          {stand && <em>{stand === 'mirror' ? ' facing them' : ' back to them'}</em>}
        </span>
      )}
      {say.length > 0 && <small>{say.join(' ')}</small>}
      {words?.easier.slice(0, 1).map((form) => (
        <small key={form}>or: {form}</small>
      ))}
      {lanes && (
        <small>
          <LaneLines lanes={lanes} />
        </small>
      )}
    </p>
  )
}
