import type { z } from 'zod'
import { DancerLevel, USUAL_LEVEL } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { emptyPlan, planAgain } from '../core/plan/edits'
import { materialsOf } from '../core/plan/material'
import {
  ClassType,
  LEAST_MINUTES,
  MOST_MINUTES,
  PlanWishes,
  SidesWish,
  SLOT_MINUTES,
  TeachingWay,
  wishesFor,
} from '../core/plan/plan'
import { planText, toldPlan } from '../core/plan/tell'
import { type Output, UNREADABLE } from './output'
import { readFile } from './readFile'

type PlanOptions = Partial<Record<'minutes' | 'level' | 'type' | 'sides' | 'way', string>>

/** Prints a class of some combinations: the first one’s tempos, and its level unless one is given. */
export function planned(
  paths: readonly string[],
  options: PlanOptions,
  asJson: boolean,
  out: Output,
): number {
  const combinations = paths
    .map((path) => readFile(path, out).combination)
    // Two files may say the same id.
    .map((one, i) => ({ ...one, id: `${i + 1} ${one.id}` }))
  const [first] = combinations
  if (!first) return UNREADABLE
  const minutes = Number(options.minutes ?? 60)
  const wished = PlanWishes.safeParse({
    ...wishesFor(first, wordOf('level', DancerLevel, options.level) ?? USUAL_LEVEL),
    ...(options.level !== undefined && { level: options.level }),
    combinations: combinations.map(({ id }) => id),
    minutes,
    type: wordOf('type', ClassType, options.type) ?? (minutes <= SLOT_MINUTES ? 'slot' : 'drop-in'),
    sides: wordOf('sides', SidesWish, options.sides) ?? 'propose',
    way: wordOf('way', TeachingWay, options.way) ?? 'propose',
  })
  if (!wished.success)
    throw new UserError(
      combinations.length > 8
        ? 'A class has up to 8 combinations.'
        : `“${options.minutes ?? ''}” is no length of a class.`,
      `Write --minutes with ${LEAST_MINUTES} to ${MOST_MINUTES}, and up to 8 files.`,
    )
  const materials = materialsOf(combinations, vocabulary, USUAL_HOUSE)
  const { plan, proposal } = planAgain(emptyPlan('plan', first.title, wished.data), materials)
  const told = toldPlan(plan, proposal, materials)
  out.print(asJson ? `${JSON.stringify(told, null, 2)}\n` : planText(told))
  return 0
}

/** One of the words of an option. @throws UserError that says which there are */
function wordOf<T extends string>(
  option: string,
  words: z.ZodEnum<Readonly<Record<T, T>>>,
  given: string | undefined,
): T | undefined {
  if (given === undefined) return undefined
  const read = words.safeParse(given)
  if (read.success) return read.data as T
  throw new UserError(
    `“${given}” is nothing for --${option}.`,
    `Write --${option} ${words.options.join(`, --${option} `)}.`,
  )
}
