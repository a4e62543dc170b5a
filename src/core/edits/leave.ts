import type { Leave } from '../combination/leaving'
import type { Finding } from '../findings/finding'
import { betweenOf } from './between'
import { changeEvents, type Edit } from './edit'
import { eventOf } from './edits'

type Left = Pick<Finding, 'code' | 'events' | 'also'>

/** Leaves a finding as it is: on its event, or on the whole where it is about no event. */
export const leaveFinding =
  (finding: Left, because: string): Edit =>
  (combination) => {
    const add = withLeave({ code: finding.code, because })
    const [first] = finding.events
    if (first === undefined) return add(combination)
    const event = eventOf(combination, first)
    if (event) return changeEvents(new Set([event.id]), add)(combination)
    return betweenOf(combination, first) ? onMeeting(first, add)(combination) : add(combination)
  }

/** Says a finding again that was left, wherever of all that is the same it was left. */
export const takeUpFinding =
  ({ code, events, also = [] }: Left): Edit =>
  (combination) => {
    const ids = [events[0], ...also.map(({ event }) => event)]
    const own = ids.flatMap((id) => (id === undefined ? [] : (eventOf(combination, id)?.id ?? [])))
    const without = withoutLeave(code)
    if (own.length > 0) return changeEvents(new Set(own), without)(combination)
    const [first] = ids
    return first !== undefined && betweenOf(combination, first)
      ? onMeeting(first, without)(combination)
      : without(combination)
  }

/** Changes one meeting where it stands. */
const onMeeting =
  (id: string, change: <T extends Leaving>(record: T) => T): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) =>
      phrase.between?.some((one) => one.id === id)
        ? { ...phrase, between: phrase.between.map((one) => (one.id === id ? change(one) : one)) }
        : phrase,
    ),
  })

interface Leaving {
  readonly leave?: readonly Leave[] | undefined
}

const withoutLeave =
  (code: string) =>
  <T extends Leaving>(record: T): T =>
    leaving(record, othersOf(record, code))

const withLeave =
  (one: Leave) =>
  <T extends Leaving>(record: T): T =>
    leaving(record, [...othersOf(record, one.code), one])

const othersOf = ({ leave = [] }: Leaving, code: string): readonly Leave[] =>
  leave.filter((one) => one.code !== code)

function leaving<T extends Leaving>(record: T, now: readonly Leave[]): T {
  const { leave: _, ...rest } = record
  return { ...rest, ...(now.length > 0 && { leave: now }) } as T
}
