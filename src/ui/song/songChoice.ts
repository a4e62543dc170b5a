import { hundredths, RATE_STEP } from '../../core/song/rate'
import type { Stretch } from '../../core/song/stretch'

/** How a song is played here. */
export interface SongChoice {
  /** In hundredths of its own speed. */
  readonly speed: number
  readonly stretch: Stretch
  readonly isCountedIn: boolean
  readonly isNumbered: boolean
  readonly isClicked: boolean
  /** What is repeated gets a little quicker again and again, up to its own speed. */
  readonly isRising: boolean
  /** 0 to 1. */
  readonly loud: number
}

export const USUAL_CHOICE: SongChoice = {
  speed: 100,
  stretch: 'once',
  isCountedIn: false,
  isNumbered: false,
  isClicked: true,
  isRising: false,
  loud: 0.8,
}

/** Counts that are clicked before it begins. */
export const COUNT_IN = 8

/** So often it is danced at a speed before the next; no quicker than it is. */
const ROUNDS_A_SPEED = 2
const OWN_SPEED = 100

/** What is chosen after so many rounds of what is repeated. */
export const risen = (choice: SongChoice, rounds: number): SongChoice =>
  choice.isRising &&
  choice.stretch !== 'once' &&
  rounds > 0 &&
  rounds % ROUNDS_A_SPEED === 0 &&
  choice.speed < OWN_SPEED
    ? { ...choice, speed: Math.min(OWN_SPEED, choice.speed + hundredths(RATE_STEP)) }
    : choice
