import { createStore } from 'zustand/vanilla'
import type { HeldSound } from '../../audio/held'
import type { MusicDeck } from '../../audio/music'
import type { Player, Position } from '../../audio/player'
import type { Drum, Mix } from '../../audio/sounds'
import type { Recording } from '../../audio/speech'
import { UserError } from '../../core/errors'
import type { Moment, Performance } from '../../core/performance/performance'
import type { Played } from '../../core/performance/played'
import type { SoundKind } from '../../core/performance/sounds'
import type { Readable } from './readable'
import { tell } from './trouble'

/** Plays performances on the page's audio clock; whether it plays can be subscribed to. */
export interface PlayDeck extends Readable<boolean> {
  /** Loads what plays, so that the first key sounds at once. */
  readonly warm: () => void
  readonly play: (played: Played) => Promise<void>
  readonly stop: () => void
  /** Goes on in a changed performance of the same parts, at its tempo. */
  readonly swap: (played: Played) => void
  /** Calls with each part that begins to be heard, by how many were played before it. */
  readonly onTurn: (listener: (turn: number) => void) => () => void
  /** Where the sound is that is heard now. */
  readonly position: () => Position | undefined
  /** What is danced there. */
  readonly moment: () => Moment | undefined
  /** Which sounds are heard. */
  readonly hear: (isHeard: (kind: SoundKind) => boolean) => void
  readonly setMix: (mix: Mix) => void
  /** Holds the sound of a song, in place of any other. */
  readonly hold: (mark: string, sound: HeldSound) => Promise<void>
  /** The mark of the song whose sound is held. */
  readonly held: () => string | undefined
  /** The sound of a song, where it is held. */
  readonly soundOf: (mark: string) => HeldSound | undefined
  /** How loud songs are, 0 to 1. */
  readonly setMusic: (loud: number) => void
  /** Loads the calling voice; the instructor's own words go before it. */
  readonly prepareVoice: (own: ReadonlyMap<string, Recording>) => Promise<void>
}

interface Made {
  readonly player: Player
  readonly drum: Drum
}

/** Whether what is played is danced too. */
const isPerformance = (played: Played): played is Performance => 'momentAt' in played

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
  let held: { readonly mark: string; readonly sound: HeldSound } | undefined
  let musicMade: Promise<MusicDeck> | undefined
  let musicDeck: MusicDeck | undefined
  let musicLoud = 1
  /** Goes up with every play and stop, so that what was overtaken while loading does not sound. */
  let turn = 0
  /** Goes up with every swap: of two the later one counts. */
  let swaps = 0

  async function make(): Promise<Made> {
    const [{ createPlayer }, { createDrum }, { wakeEvery }] = await loadSound()
    const drum = createDrum(new AudioContext({ latencyHint: 'interactive' }))
    if (mix) drum.setMix(mix)
    const player = createPlayer({
      clock: drum.context,
      book: (sound, seconds) => {
        if (!isHeard(sound.kind)) return
        drum.book(sound, seconds)
        if (sound.kind === 'say') musicDeck?.duck(seconds)
      },
      takeBack: drum.takeBack,
      music: {
        book: (...music) => musicDeck?.book(...music),
        takeBack: (from) => musicDeck?.takeBack(from),
        goOn: () => musicDeck?.goOn(),
      },
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

  async function makeMusic(): Promise<MusicDeck> {
    const [{ drum }, { createMusic }, { createSlower }] = await Promise.all([
      load(),
      import('../../audio/music'),
      import('../../audio/slow'),
    ])
    const slower = createSlower()
    musicDeck = createMusic(drum.context, {
      soundOf: (mark) => (held?.mark === mark ? held.sound : undefined),
      slow: slower.make,
      onCant: () =>
        tell(
          'slow music',
          new UserError(
            'This browser can’t slow the music.',
            'Clicks and rhythm still go slower; or play it at its own speed.',
          ),
        ),
    })
    musicDeck.setLoud(musicLoud)
    return musicDeck
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
    async play(played) {
      const mine = ++turn
      const music = played.segments.flatMap((segment) => segment.music ?? [])[0]
      // A count-in in tones, because the voice was still on its way, would confuse a class.
      const [{ player, drum }] = await Promise.all([load(), voice])
      await drum.context.resume()
      if (music) await musicDeck?.ready(music)
      if (mine === turn) player.play(played)
    },
    stop() {
      turn++
      ready?.player.stop()
    },
    swap(played) {
      const mine = turn
      const wish = ++swaps
      const next = played.segments.flatMap((segment) => segment.music ?? [])[0]
      const heard = position()?.music
      if (!next || !heard || next.rate === heard.rate) return ready?.player.swap(played)
      // At another speed it goes on as it is until that is there.
      void musicDeck?.ready({ ...next, from: heard.second }).then(() => {
        if (mine === turn && wish === swaps) ready?.player.swap(played)
      })
    },
    onTurn(listener) {
      turns.add(listener)
      return () => turns.delete(listener)
    },
    position,
    moment() {
      const now = position()
      const played = ready?.player.performed()
      return now && played && isPerformance(played) ? played.momentAt(now.tick) : undefined
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
    async hold(mark, sound) {
      held = { mark, sound }
      musicMade ??= makeMusic()
      await musicMade
      // What plays already is heard from now on.
      ready?.player.rebook()
    },
    held: () => held?.mark,
    soundOf: (mark) => (held?.mark === mark ? held.sound : undefined),
    setMusic(loud) {
      musicLoud = loud
      musicDeck?.setLoud(loud)
    },
    prepareVoice(own) {
      // Without a voice the words are tones.
      voice = speakWith(own).catch(() => {})
      return voice
    },
  }
}
