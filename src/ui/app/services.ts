import { createContext, useContext } from 'react'
import { Combination } from '../../core/combination/combination'
import type { UserError } from '../../core/errors'
import { summaryOf } from '../../core/findings/summary'
import { type Combinations, createCombinations } from '../../storage/combinations'
import { Database } from '../../storage/database'
import { createHouse, type HouseStore } from '../../storage/house'
import { createJournal, type Journal } from '../../storage/journal'
import { createOwnWords, type OwnWords } from '../../storage/own'
import type { Teaching } from '../../storage/teaching'
import { type UnsavedOf, unsavedIn, windowLocks } from '../../storage/unsaved'
import { createJudge, type Judge } from '../../workers/judge'
import { createPlayDeck, type PlayDeck } from '../play/deck'
import { houseNow } from '../stores/house'
import { createStore } from '../stores/store'
import { ownMoves, vocabularyIn, words } from '../stores/words'

/** What the screens share. */
export interface Services {
  readonly combinations: Combinations
  readonly journal: Journal
  readonly own: OwnWords
  readonly house: HouseStore
  readonly judge: Judge
  readonly deck: PlayDeck
  /** Plans, classes and groups; loaded when they are first asked for. */
  readonly teaching: () => Promise<Teaching>
  readonly newId: () => string
}

const newId = () => crypto.randomUUID()

export function createServices(): Services {
  const database = new Database()
  const summarise = (combination: Combination) =>
    summaryOf(combination, vocabularyIn(combination), houseNow.get().house)
  const combinations = createCombinations(database, { now: Date.now, newId, summarise })
  const window = newId()
  const unsaved = unsavedIn(localStorage, window, windowLocks(navigator.locks, window))
  const journal = createJournal(unsaved)
  const judge = createJudge(() => {
    const { entries } = words.get()
    return {
      own: ownMoves(),
      names: Object.fromEntries(entries.flatMap(({ id, name }) => (name ? [[id, name]] : []))),
      house: houseNow.get().rules,
    }
  })
  let teaching: Promise<Teaching> | undefined
  return {
    combinations,
    journal,
    teaching() {
      teaching ??= openTeaching(database, unsaved)
      return teaching
    },
    own: createOwnWords(database),
    house: createHouse(database),
    judge,
    deck: createPlayDeck(),
    newId,
  }
}

/** What could not be kept of plans, classes and groups, until it can again. */
export const trouble = createStore<UserError | undefined>(undefined)

async function openTeaching(database: Database, unsavedOf: UnsavedOf): Promise<Teaching> {
  const { createTeaching, readTeachingDemo } = await import('../../storage/teaching')
  const opened = createTeaching(database, localStorage, {
    unsavedOf,
    now: Date.now,
    onKept: (error) => trouble.set(() => error),
  })
  await opened.addDemoOnce(async () => {
    const { default: demo } = await import('../../storage/demo/teaching.json')
    return readTeachingDemo(demo)
  })
  await opened.recover()
  return opened
}

/** The invented combinations a first visit starts with. */
export async function readDemo(): Promise<readonly Combination[]> {
  const { default: demo } = await import('../../storage/demo/demo.json')
  return Combination.array().parse(demo)
}

const ServicesContext = createContext<Services | undefined>(undefined)
export const ServicesProvider = ServicesContext.Provider

export function useServices(): Services {
  const services = useContext(ServicesContext)
  if (!services) throw new Error('a screen stands outside the app')
  return services
}
