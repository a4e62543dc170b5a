import { format } from 'date-fns'
import type { Combination, DancerLevel } from '../../core/combination/combination'
import { CLASS_VERSION, type ClassEntry, type Group } from '../../core/diary/diary'
import { NOTHING_KNOWN, type Plan, type PlanWishes } from '../../core/plan/plan'

/** The day it is, where the instructor is. */
export const today = (): string => format(new Date(), 'yyyy-MM-dd')

/** A class of a plan that begins now. */
export function newClass(id: string, plan: Plan, group: Group | undefined): ClassEntry {
  return {
    kind: 'class',
    schemaVersion: CLASS_VERSION,
    id,
    date: today(),
    start: format(new Date(), 'HH:mm'),
    ...(group && { group: group.id }),
    title: plan.title,
    minutes: plan.wishes.minutes,
    room: group?.room ?? '',
    plan: plan.id,
    danced: [],
    notes: '',
    next: '',
  }
}

const USUAL_MINUTES = 60

/** What a combination is planned by before anything else is said. */
export const wishesFor = (combination: Combination, level: DancerLevel): PlanWishes => ({
  combinations: [combination.id],
  minutes: USUAL_MINUTES,
  level: combination.level ?? level,
  tempoNow: Math.min(combination.teachTempo, combination.tempo),
  tempoTarget: combination.tempo,
  way: 'propose',
  seen: 'none',
  known: NOTHING_KNOWN,
})
