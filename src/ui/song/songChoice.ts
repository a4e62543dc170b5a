import type { Stretch } from '../../core/song/stretch'

/** How a song is played here. */
export interface SongChoice {
  /** In hundredths of its own speed. */
  readonly speed: number
  readonly stretch: Stretch
  readonly isCountedIn: boolean
  readonly isNumbered: boolean
  readonly isClicked: boolean
  /** 0 to 1. */
  readonly loud: number
}

export const USUAL_CHOICE: SongChoice = {
  speed: 100,
  stretch: 'once',
  isCountedIn: false,
  isNumbered: false,
  isClicked: true,
  loud: 0.8,
}

/** Counts that are clicked before it begins. */
export const COUNT_IN = 8
