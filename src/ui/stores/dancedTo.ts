import { createStore } from 'zustand/vanilla'

/** Where in a song a combination is danced. */
export interface DancedTo {
  /** Id of the song. */
  readonly song: string
  /** A count of it. */
  readonly at: number
  /** Of its own speed. */
  readonly rate: number
}

/** What combinations are danced to, by their ids; it stays while one goes from screen to screen. */
export const dancedTo = createStore<Readonly<Record<string, DancedTo | undefined>>>(() => ({}))
