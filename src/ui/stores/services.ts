import { createContext, useContext } from 'react'
import { createStore } from 'zustand/vanilla'
import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import { summaryOf } from '../../core/findings/summary'
import { readCombination } from '../../core/sheet/swayJson'
import { type BackupCare, careForBackups } from '../../storage/backupCare'
import { type Combinations, createCombinations } from '../../storage/combinations'
import { Database } from '../../storage/database'
import { createHouse, type HouseStore } from '../../storage/house'
import { createJournal, type Journal } from '../../storage/journal'
import { type OnKept, type Together, togetherIn } from '../../storage/keeping'
import { createOpenedFiles, type OpenedFiles } from '../../storage/openedFiles'
import { createOwnWords, type OwnWords } from '../../storage/own'
import type { Planning } from '../../storage/planning'
import { type Slots, slotsOrNone } from '../../storage/slots'
import type { Songs } from '../../storage/songs'
import type { Takes } from '../../storage/takes'
import { type UnsavedOf, unsavedIn, windowAsks, windowLocks } from '../../storage/unsaved'
import { createJudge, type Judge } from '../../workers/judge'
import { createPlayDeck, type PlayDeck } from './deck'
import { houseNow } from './house'
import { tell } from './trouble'
import { ownMoves, vocabularyIn, words } from './words'

/** What the screens share. */
export interface Services {
  readonly combinations: Combinations
  readonly journal: Journal
  readonly own: OwnWords
  readonly house: HouseStore
  readonly judge: Judge
  readonly deck: PlayDeck
  /** Plans, classes and groups; loaded when they are first asked for. */
  readonly planning: () => Promise<Planning>
  /** Songs and their sound; loaded when they are first asked for. */
  readonly songs: () => Promise<Songs>
  /** Films of the room; loaded when they are first asked for. */
  readonly takes: () => Promise<Takes>
  readonly newId: () => string
  /** Runs writes to any tables as one. */
  readonly together: Together
  /** Opens what is kept; says so where another window is in the way. */
  readonly open: (onBlocked: () => void) => Promise<void>
  /** Called after every combination that was saved. */
  readonly onSaved: () => void
  readonly backup: BackupCare
  /** The files combinations were opened from. */
  readonly files: OpenedFiles
}

const newId = () => crypto.randomUUID()

export function createServices(): Services {
  const database = new Database()
  database.on('versionchange', () => {
    // A newer app wants to bring the database up: this window must let go of it.
    database.close()
    tell(
      'version',
      new UserError(
        'A newer version of the app was opened in another window.',
        'Load this page again to go on in it. What you have changed since is noted, and saved then.',
      ),
    )
  })
  const onKept = (about: string) => (error: UserError | undefined) => {
    tell(about, error)
    if (!error) backup.workWasKept()
  }
  const summarise = (combination: Combination) =>
    summaryOf(combination, vocabularyIn(combination), houseNow.getState().house)
  const combinations = createCombinations(database, { now: Date.now, newId, summarise })
  const window = newId()
  const slots = slotsOrNone(() => localStorage)
  const backup = careForBackups(slots, Date.now)
  const locks = navigator.locks as LockManager | undefined
  const unsaved = unsavedIn(slots, window, locks ? windowLocks(locks, window) : windowAsks(window))
  const journal = createJournal(unsaved)
  const storage = navigator.storage as StorageManager | undefined
  storage?.persisted?.().then(
    (isKept) => isKept && persistence.setState('kept'),
    () => {},
  )
  const judge = createJudge(() => {
    const { entries } = words.getState()
    return {
      own: ownMoves(),
      names: Object.fromEntries(entries.flatMap(({ id, name }) => (name ? [[id, name]] : []))),
      house: houseNow.getState().rules,
    }
  })
  return {
    combinations,
    journal,
    planning: opened(() => openPlanning(database, slots, unsaved, onKept('planning'))),
    songs: opened(async () => {
      const { createSongs } = await import('../../storage/songs')
      const keeping = { unsavedOf: unsaved, now: Date.now, onKept: onKept('songs') }
      const songs = createSongs(database, keeping, async () => {
        const { quota, usage = 0 } = (await storage?.estimate?.()) ?? {}
        return quota === undefined ? undefined : quota - usage
      })
      await songs.recover()
      await songs.sweep()
      return songs
    }),
    takes: opened(async () => {
      const { createTakes } = await import('../../storage/takes')
      const takes = createTakes(database, {
        unsavedOf: unsaved,
        now: Date.now,
        onKept: onKept('takes'),
      })
      await takes.takes.recover()
      return takes
    }),
    own: createOwnWords(database, onKept('own words')),
    house: createHouse(database, onKept('house'), unsaved),
    together: togetherIn(database),
    open: (onBlocked) => openDatabase(database, onBlocked),
    onSaved() {
      askToPersist()
      backup.workWasKept()
    },
    backup,
    files: createOpenedFiles(database),
    judge,
    deck: createPlayDeck(),
    newId,
  }
}

/** Opened when it is first asked for; a start that failed is tried again. */
function opened<T>(open: () => Promise<T>): () => Promise<T> {
  let known: Promise<T> | undefined
  return () => {
    known ??= open().catch((error) => {
      known = undefined
      throw error
    })
    return known
  }
}

/**
 * Opens the database. Every write waits for it anyway; this is where it is said why it can't be.
 * @param onBlocked called while another window of an older version holds it
 * @throws UserError that says what to do
 */
async function openDatabase(database: Database, onBlocked: () => void): Promise<void> {
  database.on('blocked', onBlocked)
  try {
    await database.open()
  } catch (cause) {
    const { name } = cause as Error
    throw name === 'VersionError'
      ? new UserError(
          'The work in this browser was written by a newer version of the app.',
          'Nothing was changed. Load the newest version and open it there.',
          { cause },
        )
      : name === 'QuotaExceededError'
        ? new UserError(
            'There is no room left on this disk to keep anything.',
            'Make room, then try again. Nothing was changed.',
            { cause },
          )
        : new UserError(
            'This browser does not let the app keep anything.',
            'Leave private browsing, or allow storage for this address, and try again.',
            { cause },
          )
  }
}

/** Whether the browser has promised to keep the work also when the disk gets full. */
type Persistence = 'unasked' | 'kept' | 'may go'
export const persistence = createStore<Persistence>(() => 'unasked')

/** Asks the browser once, at the first work that was saved, to keep it. */
function askToPersist(): void {
  if (persistence.getState() !== 'unasked') return
  persistence.setState('may go')
  const storage = navigator.storage as StorageManager | undefined
  storage?.persist?.().then(
    (isKept) => persistence.setState(isKept ? 'kept' : 'may go'),
    () => {},
  )
}

async function openPlanning(
  database: Database,
  slots: Slots,
  unsavedOf: UnsavedOf,
  onKept: OnKept,
): Promise<Planning> {
  const { createPlanning, readPlanningDemo } = await import('../../storage/planning')
  const opened = createPlanning(database, slots, { unsavedOf, now: Date.now, onKept })
  await opened.addDemoOnce(async () => {
    const { default: demo } = await import('../../storage/demo/planning.json')
    return readPlanningDemo(demo)
  })
  await opened.recover()
  return opened
}

/** The invented combinations a first visit starts with. */
export async function readDemo(): Promise<readonly Combination[]> {
  const { default: demo } = await import('../../storage/demo/demo.json')
  return demo.map(readCombination)
}

const ServicesContext = createContext<Services | undefined>(undefined)
export const ServicesProvider = ServicesContext.Provider

export function useServices(): Services {
  const services = useContext(ServicesContext)
  if (!services) throw new Error('a screen stands outside the app')
  return services
}
