import { createPlayer, type Player, type Position } from '../../audio/player'
import { createDrum, type Drum } from '../../audio/sounds'
import type { Program, SoundKind } from '../../core/teaching/program'
import type { Tempo } from '../../core/time/tempo'
import { wakeEvery } from '../../workers/wake'
import { createStore, type Readable } from '../stores/store'

/** Plays programs on the page's audio clock; whether it plays can be subscribed to. */
export interface PlayDeck extends Readable<boolean> {
  readonly play: (program: Program, tempo?: Tempo) => Promise<void>
  readonly stop: () => void
  /** Goes on in a changed program of the same parts. */
  readonly swap: (program: Program) => void
  readonly setTempo: (tempo: Tempo) => void
  /** Where the sound is that is heard now. */
  readonly position: () => Position | undefined
  /** Which sounds are heard; asked as each one is booked. */
  readonly hear: (isHeard: (kind: SoundKind) => boolean) => void
}

/** The audio clock may only start by a touch or a key, so it is made at the first play. */
export function createPlayDeck(): PlayDeck {
  const playing = createStore(false)
  let isHeard: (kind: SoundKind) => boolean = () => true
  let made: { player: Player; drum: Drum } | undefined

  function make() {
    const drum = createDrum(new AudioContext({ latencyHint: 'interactive' }))
    const player = createPlayer({
      clock: drum.context,
      book: (sound, seconds) => {
        if (isHeard(sound.kind)) drum.book(sound, seconds)
      },
      silence: drum.silence,
      every: wakeEvery,
    })
    player.subscribe(() => playing.set(() => player.isPlaying()))
    return { player, drum }
  }

  return {
    get: playing.get,
    subscribe: playing.subscribe,
    async play(program, tempo) {
      made ??= make()
      await made.drum.context.resume()
      made.player.play(program, tempo)
    },
    stop: () => made?.player.stop(),
    swap: (program) => made?.player.swap(program),
    setTempo: (tempo) => made?.player.setTempo(tempo),
    position: () => made?.player.position(made.drum.context.outputLatency || 0),
    hear(wanted) {
      isHeard = wanted
    },
  }
}
