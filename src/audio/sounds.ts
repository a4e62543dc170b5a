import type { Spoken } from '../core/calling/called'
import type { Sound, SoundKind } from '../core/performance/sounds'

/** How a sound is made: a struck tone that dies away, with some breath in it. */
interface Voice {
  readonly hertz: number
  readonly seconds: number
  readonly loud: number
  /** 0 a pure tone, 1 only noise. */
  readonly breath: number
  /** Where the tone has slid to at its end, as a skin does that was struck hard. */
  readonly falls?: number
}

type StruckKind = Exclude<SoundKind, 'say'>

/** A dry frame drum for the counts, a small voice of its own for each layer, and the strokes of the rhythms. */
const VOICES: Readonly<Record<StruckKind, Voice>> = {
  phrase: { hertz: 1320, seconds: 0.09, loud: 0.9, breath: 0.1 },
  count: { hertz: 880, seconds: 0.07, loud: 0.7, breath: 0.1 },
  and: { hertz: 660, seconds: 0.04, loud: 0.22, breath: 0.2 },
  feet: { hertz: 110, seconds: 0.12, loud: 0.6, breath: 0.5 },
  legs: { hertz: 220, seconds: 0.1, loud: 0.4, breath: 0.2 },
  hips: { hertz: 330, seconds: 0.11, loud: 0.4, breath: 0 },
  torso: { hertz: 440, seconds: 0.13, loud: 0.35, breath: 0 },
  arms: { hertz: 554, seconds: 0.15, loud: 0.3, breath: 0 },
  head: { hertz: 740, seconds: 0.1, loud: 0.3, breath: 0 },
  dum: { hertz: 128, seconds: 0.34, loud: 0.8, breath: 0.06, falls: 78 },
  tek: { hertz: 1150, seconds: 0.1, loud: 0.42, breath: 0.55, falls: 900 },
  ka: { hertz: 980, seconds: 0.08, loud: 0.34, breath: 0.6, falls: 800 },
  slap: { hertz: 520, seconds: 0.09, loud: 0.5, breath: 0.75, falls: 300 },
  shaker: { hertz: 6000, seconds: 0.05, loud: 0.18, breath: 1 },
  bell: { hertz: 1870, seconds: 0.22, loud: 0.2, breath: 0.02 },
  wood: { hertz: 1480, seconds: 0.06, loud: 0.4, breath: 0.1, falls: 1420 },
  low: { hertz: 92, seconds: 0.3, loud: 0.7, breath: 0.03, falls: 62 },
}

/** Stands for a word that nobody has recorded. */
const TONE: Voice = { hertz: 590, seconds: 0.15, loud: 0.4, breath: 0 }

/** The samples of a voice, always the same ones. */
function samplesOfVoice(
  { hertz, seconds, loud, breath, falls = hertz }: Voice,
  rate: number,
): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(Math.round(seconds * rate))
  let noise = 22_222
  let turn = 0
  for (let i = 0; i < samples.length; i++) {
    noise = (noise * 16_807) % 2_147_483_647
    const share = i / samples.length
    turn += (hertz + (falls - hertz) * Math.sqrt(share)) / rate
    const tone = Math.sin(2 * Math.PI * turn)
    const attack = Math.min(1, i / rate / 0.002)
    const fall = Math.exp(-5 * share)
    samples[i] = loud * attack * fall * ((1 - breath) * tone + breath * (noise / 1_073_741_823 - 1))
  }
  return samples
}

/** Samples, and how long before its time they have to begin, in seconds. */
export interface Sample {
  readonly samples: Float32Array<ArrayBuffer>
  readonly early: number
}

/** What is said, as samples at a rate; undefined for what it has no word for. */
export type Speak = (spoken: Spoken, rate: number) => Sample | undefined

/** Every sound as samples, made once each. */
export function createSamples(rate: number, speak: Speak): (sound: Sound) => Sample {
  const made = new Map<string, Sample>()
  return (sound) => {
    const { kind, say } = sound
    const key = kind === 'say' ? `${say?.isFast} ${say?.onBeat} ${say?.text}` : kind
    const known = made.get(key)
    if (known) return known
    const sample = (kind === 'say' && say && speak(say, rate)) || {
      samples: samplesOfVoice(kind === 'say' ? TONE : VOICES[kind], rate),
      early: 0,
    }
    made.set(key, sample)
    return sample
  }
}

export const CHANNELS = ['click', 'half', 'rhythm', 'voice', 'moves'] as const
export type Channel = (typeof CHANNELS)[number]
/** Loudness of each, 0 to 1. */
export type Mix = Readonly<Record<Channel, number>>

export const FULL_MIX: Mix = { click: 1, half: 1, rhythm: 1, voice: 1, moves: 1 }

const CHANNEL_OF: Readonly<Record<SoundKind, Channel>> = {
  phrase: 'click',
  count: 'click',
  and: 'half',
  feet: 'moves',
  legs: 'moves',
  hips: 'moves',
  torso: 'moves',
  arms: 'moves',
  head: 'moves',
  dum: 'rhythm',
  tek: 'rhythm',
  ka: 'rhythm',
  slap: 'rhythm',
  shaker: 'rhythm',
  bell: 'rhythm',
  wood: 'rhythm',
  low: 'rhythm',
  say: 'voice',
}

/** How loud a sound is in a mix. */
export const loudnessOf = ({ kind, loud = 1 }: Sound, mix: Mix): number =>
  loud * mix[CHANNEL_OF[kind]]

export interface Drum<C extends BaseAudioContext = AudioContext> {
  readonly context: C
  readonly book: (sound: Sound, seconds: number) => void
  /** Takes back what is due at this second or later. */
  readonly takeBack: (from: number) => void
  /** Holds for what is booked from now on. */
  readonly setMix: (mix: Mix) => void
  readonly setSpeak: (speak: Speak) => void
}

/** The sounds on an audio clock: a page's own, or one that is rendered. */
export function createDrum<C extends BaseAudioContext>(context: C): Drum<C> {
  let sampleOf = createSamples(context.sampleRate, () => undefined)
  const buffers = new Map<Sample, AudioBuffer>()
  const booked = new Map<AudioBufferSourceNode, number>()
  let mix = FULL_MIX
  const bufferOf = (sample: Sample) => {
    const known = buffers.get(sample)
    if (known) return known
    const buffer = context.createBuffer(1, Math.max(1, sample.samples.length), context.sampleRate)
    buffer.copyToChannel(sample.samples, 0)
    buffers.set(sample, buffer)
    return buffer
  }
  return {
    context,
    book(sound, seconds) {
      const loud = loudnessOf(sound, mix)
      if (loud <= 0) return
      const sample = sampleOf(sound)
      const source = context.createBufferSource()
      source.buffer = bufferOf(sample)
      const gain = context.createGain()
      gain.gain.value = loud
      source.connect(gain).connect(context.destination)
      source.onended = () => {
        booked.delete(source)
        gain.disconnect()
      }
      booked.set(source, seconds)
      source.start(Math.max(0, seconds - sample.early))
    },
    takeBack(from) {
      for (const [source, due] of booked) {
        if (due < from) continue
        source.stop()
        source.disconnect()
        booked.delete(source)
      }
    },
    setMix(wanted) {
      mix = wanted
    },
    setSpeak(speak) {
      sampleOf = createSamples(context.sampleRate, speak)
    },
  }
}
