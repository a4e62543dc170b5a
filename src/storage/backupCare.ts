import { type Slots, writeSlot } from './slots'

const SLOT = 'molten-sway without backup since'
const DAY_MS = 24 * 60 * 60 * 1000
/** So many days after the first work that is in no backup it is said. */
const DAYS = 14

/** Since when there is work in this browser that is in no backup. */
export interface BackupCare {
  readonly workWasKept: () => void
  readonly wasSaved: () => void
  /** Whole days there has been work without a backup; undefined while that need not be said. */
  readonly daysDue: () => number | undefined
}

/** Written down at once and for all windows: a browser that is killed still knows it. */
export function careForBackups(slots: Slots, now: () => number): BackupCare {
  const since = () => {
    try {
      const at = Number(slots.getItem(SLOT))
      return Number.isFinite(at) && at > 0 ? at : undefined
    } catch {
      return undefined
    }
  }
  return {
    workWasKept() {
      if (since() === undefined) writeSlot(slots, SLOT, now())
    },
    wasSaved() {
      try {
        slots.removeItem(SLOT)
      } catch {
        // What can't be written could not say when either.
      }
    },
    daysDue() {
      const at = since()
      const days = at === undefined ? 0 : Math.floor((now() - at) / DAY_MS)
      return days >= DAYS ? days : undefined
    },
  }
}
