import { DUCK_SECONDS, DUCKED, FADE_SECONDS, WORD_SECONDS } from './ducking'
import { type HeldSound, PIECE, samplesOf } from './held'
import type { Schedule } from './render'
import { createStretcher, heardFor } from './stretch'

/**
 * The song that goes along with a performance, as one row at its own rate of samples, slower or
 * faster at the same pitch, and quieter under words.
 * @param loud 0 to 1
 * @param told is told the share that is done, 0 to 1
 */
export async function renderMusic(
  { music, sounds, seconds }: Schedule,
  sound: HeldSound,
  loud: number,
  told: (share: number) => void = () => {},
): Promise<Float32Array<ArrayBuffer>> {
  const { rate } = sound
  const row = new Float32Array(Math.ceil(seconds * rate))
  for (const { at, until, from, rate: speed } of music) {
    const begins = Math.round(at * rate)
    const length = Math.min(row.length, Math.round(until * rate)) - begins
    const first = Math.round((from / speed) * rate)
    for (let done = 0; done < length; done += PIECE) {
      const some = Math.min(PIECE, length - done)
      const rows = await windowOf(sound, speed, first + done, some)
      for (let i = 0; i < some; i++) {
        let sum = 0
        for (const channel of rows) sum += channel[i] as number
        const edge = Math.min(done + i, length - done - i) / (FADE_SECONDS * rate)
        row[begins + done + i] = (loud * Math.min(1, edge) * sum) / rows.length
      }
      told((begins + done) / row.length)
    }
  }
  for (const { sound: said, seconds: due } of sounds) if (said.kind === 'say') duck(row, rate, due)
  return row
}

const stretchers = new WeakMap<
  HeldSound,
  { speed: number; made: ReturnType<typeof createStretcher> }
>()

/** Samples of a song at a speed; what goes on from where the last ones ended is worked out as one. */
async function windowOf(sound: HeldSound, speed: number, from: number, length: number) {
  if (speed === 1) return samplesOf(sound, from, from + length)
  const known = stretchers.get(sound)
  const made =
    known?.speed === speed ? known.made : createStretcher(sound.rate, sound.channels, speed)
  stretchers.set(sound, { speed, made })
  const [first, to] = heardFor(from, length, speed)
  return (await made).window(from, length, { first, rows: samplesOf(sound, first, to) })
}

/** Makes a row quieter round a word. */
function duck(row: Float32Array, rate: number, due: number): void {
  const [from, to] = [due - DUCK_SECONDS, due + WORD_SECONDS + DUCK_SECONDS]
  for (let i = Math.max(0, Math.floor(from * rate)); i < Math.min(row.length, to * rate); i++) {
    const seconds = i / rate
    const edge = Math.min((seconds - from) / DUCK_SECONDS, (to - seconds) / DUCK_SECONDS, 1)
    row[i] = (row[i] as number) * (1 - (1 - DUCKED) * Math.max(0, edge))
  }
}
