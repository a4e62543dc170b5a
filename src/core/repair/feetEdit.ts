import type { FootAction } from '../body/feet'
import type { Side } from '../body/side'
import type { Tick } from '../time/time'

/** What a repair is for (model 7). */
export type RepairGoal = 'faults' | 'switch' | 'repeat'

export type EditKind =
  | 'touch'
  | 'step'
  | 'swap'
  | 'ball-change'
  | 'recover'
  | 'hop'
  | 'insert'
  | 'sway'

/** One change of one step of a phrase. */
export interface StepEdit {
  readonly kind: EditKind
  /** The event it changes, and which of its steps where it is a figure; absent for what is put in. */
  readonly event?: string
  readonly step?: number
  /** Of the phrase. */
  readonly at: Tick
  /** What stood there, and what stands there now: two steps for a ball change. */
  readonly from?: FootAction
  readonly to: readonly FootAction[]
  readonly cost: number
}

/** A change of the order: one occurrence for itself, from the other side, or a link at the end. */
export type OrderEdit =
  | {
      readonly kind: 'own-phrase'
      readonly pass: number
      /** Its mirror twin, which becomes the same one. */
      readonly twin?: number
      readonly cost: number
    }
  | { readonly kind: 'other-side'; readonly pass: number; readonly cost: number }
  | {
      readonly kind: 'link'
      readonly counts: 1 | 2 | 4
      readonly foot: Side
      readonly cost: number
    }

/** One edit of a repair: a step of a phrase (of one occurrence, where it has its own phrase), or of the order. */
export type FeetEdit = (StepEdit & { readonly phrase: string; readonly pass?: number }) | OrderEdit

/** The same edit has the same key. */
function keyOfEdit(edit: FeetEdit): string {
  if ('phrase' in edit) {
    const { phrase, pass, kind, event, step, at, to } = edit
    return [phrase, pass, kind, event, step, at, to[0]?.foot].join('|')
  }
  return edit.kind === 'link' ? `link|${edit.counts}` : `${edit.kind}|${edit.pass}`
}

/** Costs are summed as whole hundredths, so that equal sums are equal. */
export const hundredths = (cost: number): number => Math.round(cost * 100)

export interface Priced {
  /** In hundredths. */
  readonly cost: number
  readonly edits: readonly FeetEdit[]
  /** Where its edits are, for the choice among equals: the later wins. */
  readonly late: number
}

/** Cheaper first; among equals the one of fewer edits, then the later one (model 7). */
export const byPrice = (
  a: Omit<Priced, 'edits'> & { readonly edits: readonly unknown[] },
  b: Omit<Priced, 'edits'> & { readonly edits: readonly unknown[] },
): number => a.cost - b.cost || a.edits.length - b.edits.length || b.late - a.late

/** Whether all edits of one are among those of the other: then the other is never needed. */
export function contains(all: readonly FeetEdit[], some: readonly FeetEdit[]): boolean {
  if (some.length > all.length) return false
  const keys = new Set(all.map(keyOfEdit))
  return some.every((edit) => keys.has(keyOfEdit(edit)))
}
