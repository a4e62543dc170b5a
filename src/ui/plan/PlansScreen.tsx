import { ActionIcon, Select } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { emptyPlan } from '../../core/plan/edits'
import { classSeconds, type Plan, wishesFor } from '../../core/plan/plan'
import { BringBack } from '../parts/BringBack'
import { inWords, ProblemPage, Unreadable } from '../parts/Problem'
import { planBeside } from '../planning/planBeside'
import { type PlanningRecords, usePlanningRecords } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { PlanStrip } from './PlanStrip'
import classes from './plan.module.css'

/** All plans, each with its class as it pours; a new one from a combination. */
export function PlansScreen() {
  const { error, ready } = usePlanningRecords()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  return <Shelf {...ready} />
}

function Shelf({ planning, plans, unreadable, groups, combinations, materials }: PlanningRecords) {
  const { judge, newId } = useServices()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [query] = useSearchParams()
  const [gone, setGone] = useState<Plan>()
  const make = async (id: string, replace: boolean) => {
    const combination = combinations.find((one) => one.id === id)
    if (!combination) return
    const wishes = wishesFor(combination, houseNow.getState().rules.level)
    const wanted = emptyPlan(newId(), combination.title, wishes)
    const { plan } = await planBeside(judge, wanted, materials)
    await planning.plans.put(plan)
    await queries.invalidateQueries({ queryKey: ['records', 'plans'] })
    await navigate(`/plan/${plan.id}`, { replace })
  }
  // From the studio or from teaching: a plan of that combination, made once.
  const from = query.get('from')
  const made = useRef<string>(undefined)
  useEffect(() => {
    if (from === null || made.current === from) return
    made.current = from
    void make(from, true)
  })
  return (
    <main className={classes.shelf}>
      <div className={classes.top}>
        <h1 className="display">Plans</h1>
        <Link to="/series" className={classes.over}>
          Series over weeks
        </Link>
        <Select
          className={classes.make}
          aria-label="A new plan from a combination"
          placeholder="A new plan from…"
          searchable
          data={combinations.map(({ id, title }) => ({ value: id, label: title }))}
          value={null}
          onChange={(id) => id !== null && void make(id, false)}
        />
      </div>
      {gone && (
        <BringBack
          title={gone.title}
          onBack={() => {
            setGone(undefined)
            void planning.plans.restore(gone.id)
          }}
        />
      )}
      <Unreadable count={unreadable.plans} of="plan" />
      {plans.length === 0 && (
        <p className={classes.empty}>
          No plan yet. Choose a combination above: its class is proposed at once, minute by minute.
        </p>
      )}
      <ul className={classes.plans}>
        {plans.map((plan) => (
          <li key={plan.id}>
            <Link to={`/plan/${plan.id}`}>
              <b className="display">{plan.title || 'Without a name'}</b>
              <span className="counts">
                {plan.wishes.minutes} min · {plan.drills.length} drills · {plan.wishes.tempoNow} to{' '}
                {plan.wishes.tempoTarget}
                {plan.group && ` · ${groups.find(({ id }) => id === plan.group)?.name ?? ''}`}
              </span>
              <PlanStrip
                drills={plan.drills}
                materials={materials}
                seconds={classSeconds(plan.wishes)}
                onPick={() => {}}
              />
            </Link>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Delete ${plan.title}`}
              onClick={() => {
                setGone(plan)
                void planning.plans.remove(plan.id)
              }}
            >
              <IconTrash size={18} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </main>
  )
}
