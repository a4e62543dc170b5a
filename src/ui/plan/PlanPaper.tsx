import { sidesWords } from '../../core/class/underWay'
import { type Materials, secondsOf } from '../../core/plan/material'
import { CLASS_CAUTION, notesOf } from '../../core/plan/notes'
import type { Plan } from '../../core/plan/plan'
import { drillTitle, minutesText } from '../../core/plan/totals'
import classes from './plan.module.css'

/** The class on one page in large type; only on paper. */
export function PlanPaper({
  plan,
  materials,
}: {
  readonly plan: Plan
  readonly materials: Materials
}) {
  let from = 0
  const rows = plan.drills.map((drill) => {
    const seconds = secondsOf(drill, materials)
    const row = { drill, at: from, seconds }
    from += seconds
    return row
  })
  // Many drills get smaller type, so that it stays one page.
  const size =
    rows.length > 44 ? 'most' : rows.length > 15 ? 'many' : rows.length > 10 ? 'some' : 'few'
  return (
    <article className={classes.paper} data-size={size} aria-hidden>
      <h1 className="display">
        {plan.title || 'Class'} <span>{plan.wishes.minutes} min</span>
      </h1>
      <ol>
        {rows.map(({ drill, at, seconds }) => {
          const [easier] = notesOf(drill, materials).easier
          return (
            <li key={drill.id}>
              <b className="counts">{Math.round(at / 60)}′</b>
              <span>
                {drillTitle(drill, materials)}
                <small>
                  {drill.moves
                    ? drill.moves
                        .flatMap((id) => materials.vocabulary.find(id)?.name ?? [])
                        .join(', ')
                    : `${sidesWords(drill)} · ${drill.tempo} · × ${drill.repeats} · ${drill.stand === 'mirror' ? 'facing them' : 'back to them'}`}
                  {easier && !drill.moves && ` · easier: ${easier.to}`}
                </small>
              </span>
              <i className="counts">{minutesText(seconds)}</i>
            </li>
          )
        })}
      </ol>
      <p>{CLASS_CAUTION}</p>
    </article>
  )
}
