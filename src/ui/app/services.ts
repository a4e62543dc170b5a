import { createContext, useContext } from 'react'
import { Combination } from '../../core/combination/combination'
import { summaryOf } from '../../core/findings/summary'
import { type Combinations, createCombinations } from '../../storage/combinations'
import { Database } from '../../storage/database'
import { createJournal, type Journal, windowLocks } from '../../storage/journal'
import { createOwnWords, type OwnWords } from '../../storage/own'
import { createPlayDeck, type PlayDeck } from '../play/deck'
import { vocabularyIn } from '../stores/words'

/** What the screens share. */
export interface Services {
  readonly combinations: Combinations
  readonly journal: Journal
  readonly own: OwnWords
  readonly deck: PlayDeck
  readonly newId: () => string
}

const newId = () => crypto.randomUUID()

export function createServices(): Services {
  const database = new Database()
  const summarise = (combination: Combination) => summaryOf(combination, vocabularyIn(combination))
  const combinations = createCombinations(database, { now: Date.now, newId, summarise })
  const window = newId()
  const journal = createJournal(localStorage, window, windowLocks(navigator.locks, window))
  return { combinations, journal, own: createOwnWords(database), deck: createPlayDeck(), newId }
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
