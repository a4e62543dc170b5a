import type { Combination, Leave } from '../combination/combination'
import type { Finding } from '../findings/finding'
import { changeEvents, type Edit } from './edit'
import { eventOf } from './edits'

type Left = Pick<Finding, 'code' | 'events'>

/** Leaves a finding as it is: on its event, or on the whole where it is about no event. */
export const leaveFinding = (finding: Left, because: string): Edit =>
  withLeaves(finding, (others) => [...others, { code: finding.code, because }])

/** Says a finding again that was left. */
export const takeUpFinding = (finding: Left): Edit => withLeaves(finding, (others) => others)

function withLeaves(
  { code, events }: Left,
  make: (others: readonly Leave[]) => readonly Leave[],
): Edit {
  const changed = <T extends { readonly leave?: readonly Leave[] | undefined }>(record: T): T => {
    const { leave = [], ...rest } = record
    const now = make(leave.filter((one) => one.code !== code))
    return { ...rest, ...(now.length > 0 && { leave: now }) } as T
  }
  return (combination): Combination => {
    const [first] = events
    const event = first === undefined ? undefined : eventOf(combination, first)
    return event ? changeEvents(new Set([event.id]), changed)(combination) : changed(combination)
  }
}
