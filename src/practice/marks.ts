import type { Side } from '../core/body/side'
import type { PageData } from '../core/practice/pageData'
import {
  MOST_DAYS,
  newReturn,
  type PracticeReturn,
  type PracticeRow,
} from '../core/practice/returned'

/** What a page remembers between two times it is open. */
export interface Marks {
  readonly kept: PracticeReturn
  /** Where the student was. */
  readonly chunk: number
  readonly stop: number
}

/** A place where marks are kept, and whether they stay when the page is closed. */
export interface MarkStore {
  readonly stays: boolean
  readonly read: () => Marks
  readonly write: (marks: Marks) => void
}

/**
 * Marks by the page's own mark in the browser's storage; local pages share one, so nothing else
 * stands there. Where the browser gives none they last as long as the page is open.
 */
export function marksOf(data: PageData): MarkStore {
  const key = `sway-page ${data.id}`
  const begun: Marks = { kept: newReturn(data.id, data.title), chunk: -1, stop: 0 }
  try {
    const storage = localStorage
    storage.setItem(`${key} ?`, '1')
    storage.removeItem(`${key} ?`)
    return {
      stays: true,
      read: () => readMarks(storage.getItem(key), begun, data),
      write(marks) {
        try {
          storage.setItem(key, JSON.stringify(marks))
        } catch {
          // A full disk takes no marks; the page goes on.
        }
      },
    }
  } catch {
    let now = begun
    return {
      stays: false,
      read: () => now,
      write: (marks) => {
        now = marks
      },
    }
  }
}

/** What is damaged is begun anew. */
function readMarks(text: string | null, begun: Marks, { chunks }: PageData): Marks {
  if (text === null) return begun
  try {
    const { kept, chunk, stop } = JSON.parse(text) as Marks
    const rows = kept.rows.filter((row) => chunks.some(({ id }) => id === row.chunk))
    const isPlace = Number.isInteger(chunk) && chunk < chunks.length && Number.isInteger(stop)
    return {
      kept: { ...begun.kept, ...kept, rows },
      chunk: isPlace ? chunk : -1,
      stop: isPlace ? stop : 0,
    }
  } catch {
    return begun
  }
}

/** With one more round that went well, or not yet. */
export function marked(
  kept: PracticeReturn,
  at: Pick<PracticeRow, 'chunk' | 'side' | 'percent'>,
  isClean: boolean,
): PracticeReturn {
  const isSame = (row: PracticeRow) =>
    row.chunk === at.chunk && row.side === at.side && row.percent === at.percent
  const before = kept.rows.find(isSame) ?? { ...at, clean: 0, notYet: 0 }
  const now = {
    ...before,
    clean: before.clean + (isClean ? 1 : 0),
    notYet: before.notYet + (isClean ? 0 : 1),
  }
  return { ...kept, rows: [...kept.rows.filter((row) => !isSame(row)), now] }
}

/** With some more seconds danced on a day; whole minutes are told, begun ones count. */
export function withSeconds(kept: PracticeReturn, day: string, seconds: number): PracticeReturn {
  const before = kept.days.find((one) => one.day === day)
  const others = kept.days.filter((one) => one.day !== day)
  const minutes = Math.min(1440, (before?.minutes ?? 0) + seconds / 60)
  return { ...kept, days: [...others, { day, minutes }].slice(-MOST_DAYS) }
}

/** Rounds of a chunk that were clean on a side, at any speed. */
export const cleanOn = ({ rows }: PracticeReturn, chunk: string, side: Side): number =>
  rows
    .filter((row) => row.chunk === chunk && row.side === side)
    .reduce((sum, row) => sum + row.clean, 0)
