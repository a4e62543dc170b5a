import { createStore } from 'zustand/vanilla'
import type { Player, Position } from '../../audio/player'
import type { Drum, Mix } from '../../audio/sounds'
import type { Recording } from '../../audio/speech'
import type { Moment, Performance } from '../../core/performance/performance'
import type { SoundKind } from '../../core/performance/sounds'
import type { Readable } from './readable'

/** Plays performances on the page's audio clock; whether it plays can be subscribed to. */
export interface PlayDeck extends Readable<boolean> {
  /** Loads what plays, so that the first key sounds at once. */
  readonly warm: () => void
  readonly play: (performance: Performance) => Promise<void>
  readonly stop: () => void
  /** Goes on in a changed performance of the same parts, at its tempo. */
  readonly swap: (performance: Performance) => void
  /** Calls with each part that begins to be heard, by how many were played before it. */
  readonly onTurn: (listener: (turn: number) => void) => () => void
  /** Where the sound is that is heard now. */
  readonly position: () => Position | undefined
  /** What is danced there. */
  readonly moment: () => Moment | undefined
  /** Which sounds are heard. */
  readonly hear: (isHeard: (kind: SoundKind) => boolean) => void
  readonly setMix: (mix: Mix) => void
  /** Loads the calling voice; the instructor's own words go before it. */
  readonly prepareVoice: (own: ReadonlyMap<string, Recording>) => Promise<void>
}

interface Made {
  readonly player: Player
  readonly drum: Drum
}

const loadSound = () =>
  Promise.all([
    import('../../audio/player'),
    import('../../audio/sounds'),
    import('../../workers/wake'),
  ])

/** The audio clock may only start by a touch or a key, so it is made at the first play. */
export function createPlayDeck(): PlayDeck {
  const playing = createStore(() => false)
  const turns = new Set<(turn: number) => void>()
  let isHeard: (kind: SoundKind) => boolean = () => true
  let mix: Mix | undefined
  let made: Promise<Made> | undefined
  let ready: Made | undefined
  let voice: Promise<void> = Promise.resolve()
  /** Goes up with every play and stop, so that what was overtaken while loading does not sound. */
  let turn = 0

  async function make(): Promise<Made> {
    const [{ createPlayer }, { createDrum }, { wakeEvery }] = await loadSound()
    const drum = createDrum(new AudioContext({ latencyHint: 'interactive' }))
    if (mix) drum.setMix(mix)
    const player = createPlayer({
      clock: drum.context,
      book: (sound, seconds) => {
        if (isHeard(sound.kind)) drum.book(sound, seconds)
      },
      takeBack: drum.takeBack,
      every: wakeEvery,
    })
    player.subscribe(() => playing.setState(player.performed() !== undefined))
    player.onTurn((turn) => {
      for (const listener of [...turns]) listener(turn)
    })
    ready = { player, drum }
    return ready
  }
  const load = () => {
    made ??= make()
    return made
  }

  async function speakWith(own: ReadonlyMap<string, Recording>) {
    const [{ drum }, { loadBanks, speakFrom }] = await Promise.all([
      load(),
      import('../../audio/speech'),
    ])
    const banks = await loadBanks(drum.context)
    drum.setSpeak(speakFrom(banks, drum.context.sampleRate, own))
  }

  const position = () => ready?.player.position(ready.drum.context.outputLatency || 0)

  return {
    ...playing,
    warm: () => void loadSound(),
    async play(performance) {
      const mine = ++turn
      // A count-in in tones, because the voice was still on its way, would confuse a class.
      const [{ player, drum }] = await Promise.all([load(), voice])
      await drum.context.resume()
      if (mine === turn) player.play(performance)
    },
    stop() {
      turn++
      ready?.player.stop()
    },
    swap: (performance) => ready?.player.swap(performance),
    onTurn(listener) {
      turns.add(listener)
      return () => turns.delete(listener)
    },
    position,
    moment() {
      const now = position()
      return now && ready?.player.performed()?.momentAt(now.tick)
    },
    hear(wanted) {
      isHeard = wanted
      ready?.player.rebook()
    },
    setMix(wanted) {
      mix = wanted
      ready?.drum.setMix(wanted)
      ready?.player.rebook()
    },
    prepareVoice(own) {
      // Without a voice the words are tones.
      voice = speakWith(own).catch(() => {})
      return voice
    },
  }
}
