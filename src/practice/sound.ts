import { createPlayer, type Player } from '../audio/player'
import { createDrum, FULL_MIX } from '../audio/sounds'

/** What is heard of a page. */
export interface Heard {
  readonly counts: boolean
  readonly rhythm: boolean
}

export interface PageSound {
  readonly player: Player
  readonly hear: (heard: Heard) => void
  /** How far what is heard lags behind the clock, in seconds. */
  readonly late: () => number
}

/** Sound may only begin by a tap: made in the first one. */
export function pageSound(): PageSound {
  const context = new AudioContext()
  const drum = createDrum(context)
  const player = createPlayer({
    clock: context,
    book: drum.book,
    takeBack: drum.takeBack,
    every(ms, call) {
      const timer = setInterval(call, ms)
      return () => clearInterval(timer)
    },
  })
  void context.resume()
  return {
    player,
    hear({ counts, rhythm }) {
      drum.setMix({
        ...FULL_MIX,
        click: counts ? 1 : 0,
        half: counts ? 1 : 0,
        rhythm: rhythm ? 1 : 0,
        moves: 0,
        voice: 0,
      })
      player.rebook()
    },
    late: () => context.outputLatency || context.baseLatency || 0,
  }
}
