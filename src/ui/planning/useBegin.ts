import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { beginClass } from '../../core/class/underWay'
import { type Group, newClass } from '../../core/diary/diary'
import type { Plan } from '../../core/plan/plan'
import type { Planning } from '../../storage/planning'
import { useServices } from '../stores/services'
import { timeNow, today } from './today'

/** Begins the class of a plan, and goes to its floor. */
export function useBegin(planning: Planning, groups: readonly Group[]) {
  const { newId } = useServices()
  const navigate = useNavigate()
  const queries = useQueryClient()
  return async (plan: Plan) => {
    const entry = newClass({
      id: newId(),
      date: today(),
      start: timeNow(),
      title: plan.title,
      minutes: plan.wishes.minutes,
      plan: plan.id,
      group: groups.find(({ id }) => id === plan.group),
      series: plan.series,
    })
    await planning.classes.put(entry)
    planning.underWay.write(beginClass(plan, entry), 0)
    await queries.invalidateQueries({ queryKey: ['records'] })
    await navigate(`/class/${entry.id}`)
  }
}
