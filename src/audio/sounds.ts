import type { Sound, SoundKind } from '../core/teaching/program'

/** How a sound is made: a struck tone that dies away, with some breath in it. */
interface Voice {
  readonly hertz: number
  readonly seconds: number
  readonly loud: number
  /** 0 a pure tone, 1 only noise. */
  readonly breath: number
}

/** A dry frame drum for the counts, and a small voice of its own for each layer. */
const VOICES: Readonly<Record<SoundKind, Voice>> = {
  phrase: { hertz: 1320, seconds: 0.09, loud: 0.9, breath: 0.1 },
  count: { hertz: 880, seconds: 0.07, loud: 0.7, breath: 0.1 },
  and: { hertz: 660, seconds: 0.04, loud: 0.22, breath: 0.2 },
  feet: { hertz: 110, seconds: 0.12, loud: 0.6, breath: 0.5 },
  hips: { hertz: 330, seconds: 0.11, loud: 0.4, breath: 0 },
  torso: { hertz: 440, seconds: 0.13, loud: 0.35, breath: 0 },
  arms: { hertz: 554, seconds: 0.15, loud: 0.3, breath: 0 },
  head: { hertz: 740, seconds: 0.1, loud: 0.3, breath: 0 },
}

/** The samples of a voice, always the same ones. */
function samplesOf(
  { hertz, seconds, loud, breath }: Voice,
  rate: number,
): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(Math.round(seconds * rate))
  let noise = 22_222
  for (let i = 0; i < samples.length; i++) {
    noise = (noise * 16_807) % 2_147_483_647
    const time = i / rate
    const tone = Math.sin(2 * Math.PI * hertz * time)
    const attack = Math.min(1, time / 0.002)
    const fall = Math.exp((-5 * time) / seconds)
    samples[i] = loud * attack * fall * ((1 - breath) * tone + breath * (noise / 1_073_741_823 - 1))
  }
  return samples
}

export interface Drum {
  readonly context: AudioContext
  readonly book: (sound: Sound, seconds: number) => void
  readonly silence: () => void
}

/** The sounds on a page's audio clock. */
export function createDrum(context: AudioContext): Drum {
  const buffers = new Map<SoundKind, AudioBuffer>()
  const booked = new Set<AudioBufferSourceNode>()
  for (const [kind, voice] of Object.entries(VOICES)) {
    const samples = samplesOf(voice, context.sampleRate)
    const buffer = context.createBuffer(1, samples.length, context.sampleRate)
    buffer.copyToChannel(samples, 0)
    buffers.set(kind as SoundKind, buffer)
  }
  return {
    context,
    book({ kind }, seconds) {
      const source = context.createBufferSource()
      source.buffer = buffers.get(kind) ?? null
      source.connect(context.destination)
      source.onended = () => booked.delete(source)
      booked.add(source)
      source.start(seconds)
    },
    silence() {
      for (const source of booked) {
        source.stop()
        source.disconnect()
      }
      booked.clear()
    },
  }
}
