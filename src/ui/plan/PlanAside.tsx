import { Button, Select } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { titleOf } from '../../core/plan/drill'
import { comparePlans } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import { CLASS_CAUTION } from '../../core/plan/notes'
import type { Plan } from '../../core/plan/plan'
import type { Proposal } from '../../core/plan/planner'
import { drillTitle, minutesText, type PlanTotals, RISK_WORDS } from '../../core/plan/totals'
import { useServices } from '../stores/services'
import classes from './plan.module.css'

/** What the class adds up to, what has no room, and another plan beside it. */
export function PlanAside({
  plan,
  others,
  totals,
  proposal,
  materials,
}: {
  readonly plan: Plan
  readonly others: readonly Plan[]
  readonly totals: PlanTotals
  readonly proposal: Proposal
  readonly materials: Materials
}) {
  const { counts, risks, remarks, seconds, spare } = totals
  const most = Math.max(counts.R, counts.L, 1)
  const whole = remarks.filter(({ drill }) => drill === undefined)
  return (
    <aside className={classes.aside} aria-label="Totals">
      <p className={classes.sum} data-spare={spare}>
        <b className="display counts">{minutesText(seconds)}</b> of {plan.wishes.minutes} min
      </p>
      <div className={classes.counts}>
        {(['R', 'L'] as const).map((side) => (
          <p key={side}>
            <span>{side === 'R' ? 'Right' : 'Left'}</span>
            <meter
              min={0}
              max={most}
              value={counts[side]}
              aria-label={`Counts on the ${side === 'R' ? 'right' : 'left'} side`}
            />
            <b className="counts">{counts[side]}</b>
          </p>
        ))}
      </div>
      <ul className={classes.risks} aria-label="Repetitions that pile up">
        {risks.map(({ risk, times, cap }) => (
          <li key={risk} data-over={times > cap}>
            {RISK_WORDS[risk]}{' '}
            <b className="counts">
              {times} of {cap}
            </b>
          </li>
        ))}
      </ul>
      {whole.map(({ text }) => (
        <p key={text} className={classes.remark}>
          {text}
        </p>
      ))}
      {proposal.left.length > 0 && (
        <LeftOver plan={plan} proposal={proposal} materials={materials} />
      )}
      <Compare plan={plan} others={others} materials={materials} />
      <p className={classes.caution}>{CLASS_CAUTION}</p>
    </aside>
  )
}

/** What does not fit, and over how many classes it would be taught. */
function LeftOver({
  plan,
  proposal,
  materials,
}: {
  readonly plan: Plan
  readonly proposal: Proposal
  readonly materials: Materials
}) {
  const [isSpread, setSpread] = useState(false)
  const { judge } = useServices()
  const { wishes } = plan
  const combinations = useMemo(
    () => wishes.combinations.flatMap((id) => materials.find(id)?.combination ?? []),
    [wishes, materials],
  )
  const spread = useQuery({
    queryKey: ['spread', wishes, combinations],
    queryFn: ({ signal }) => judge.ask('spread', { wishes, combinations }, signal),
    enabled: isSpread,
    gcTime: 0,
    staleTime: 0,
  })
  const classesOf = isSpread ? (spread.data ?? []) : []
  const names = proposal.left.map((unit) => drillTitle({ ...unit, id: 'left' }, materials))
  return (
    <section className={classes.left} aria-label="What does not fit">
      <h2 className="display">No room for</h2>
      <p>{names.join(', ')}.</p>
      <Button size="compact-sm" variant="default" onClick={() => setSpread(!isSpread)}>
        {isSpread ? 'Only this class' : 'Spread it over classes'}
      </Button>
      <ol>
        {classesOf.map(({ drills, taught }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the number of the class is what it is
          <li key={i}>
            {drills.some(({ kind }) => kind === 'review') && <i>Review, then </i>}
            {[...new Set(taught.map((drill) => drillTitle(drill, materials)))].join(', ') ||
              'what there is, joined and run'}
          </li>
        ))}
      </ol>
    </section>
  )
}

function Compare({
  plan,
  others,
  materials,
}: {
  readonly plan: Plan
  readonly others: readonly Plan[]
  readonly materials: Materials
}) {
  const [id, setId] = useState<string | null>(null)
  const other = others.find((one) => one.id === id)
  const pairs = useMemo(
    () => (other ? comparePlans(plan, other, materials) : []),
    [plan, other, materials],
  )
  if (others.length === 0) return null
  return (
    <section className={classes.compare} aria-label="Another plan beside it">
      <Select
        size="xs"
        label="Compare with"
        placeholder="another plan"
        clearable
        data={others.map(({ id: value, title }) => ({ value, label: title || 'Without a name' }))}
        value={id}
        onChange={setId}
      />
      {other && (
        <table>
          <thead>
            <tr>
              <th scope="col">Drill</th>
              <th scope="col">here</th>
              <th scope="col">there</th>
            </tr>
          </thead>
          <tbody>
            {pairs.map(({ title, a, b, seconds: [here, there] }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same drill may stand twice
              <tr key={i} data-differs={here !== there}>
                <th scope="row">{title || (a ? titleOf(a, []) : b ? titleOf(b, []) : '')}</th>
                <td className="counts">{here > 0 ? minutesText(here) : '–'}</td>
                <td className="counts">{there > 0 ? minutesText(there) : '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
