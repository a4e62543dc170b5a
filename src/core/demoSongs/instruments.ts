/** Samples a second of everything that is made here. */
export const RATE = 22_050

/** Numbers that look random and are the same for the same seed. */
export function seeded(seed: number): () => number {
  let state = (seed * 2_654_435_761) >>> 0 || 1
  return () => {
    state ^= state << 13
    state >>>= 0
    state ^= state >>> 17
    state ^= state << 5
    state >>>= 0
    return state / 4_294_967_296
  }
}

type Sound = Float32Array

function sound(seconds: number, at: (t: number, i: number) => number): Sound {
  // A plain loop: a row made from a function takes many times as long.
  const row = new Float32Array(Math.round(seconds * RATE))
  for (let i = 0; i < row.length; i++) row[i] = at(i / RATE, i)
  return row
}

/** A skin that is struck: its tone falls while it dies away. */
export function skin(from: number, to: number, dies: number): Sound {
  let phase = 0
  return sound(4 * dies, (t) => {
    phase += (2 * Math.PI * (to + (from - to) * Math.exp(-t / 0.03))) / RATE
    return Math.sin(phase) * Math.exp(-t / dies) * Math.min(1, t / 0.002)
  })
}

/** A rattle or a hand: noise above some frequency. */
export function rattle(random: () => number, dies: number, bright: number, rises = 0.001): Sound {
  let low = 0
  return sound(5 * dies, (t) => {
    const noise = random() * 2 - 1
    low += (noise - low) * (1 - bright)
    return (noise - low) * Math.exp(-t / dies) * Math.min(1, t / rises) * 0.6
  })
}

/** A string that is plucked: a delay that loses its brightness. */
export function plucked(random: () => number, hertz: number, seconds: number): Sound {
  const length = Math.max(2, Math.round(RATE / hertz))
  const string = Float32Array.from({ length }, () => random() * 2 - 1)
  let last = 0
  return sound(seconds, (t, i) => {
    const value = string[i % length] as number
    string[i % length] = 0.497 * (value + last)
    last = value
    return value * Math.min(1, (seconds - t) / 0.02)
  })
}

/** A low reed or an organ: a few even tones that begin softly. */
export const reed = (hertz: number, seconds: number): Sound =>
  sound(seconds, (t) => {
    const held = Math.min(1, t / 0.06, (seconds - t) / 0.05)
    const turn = 2 * Math.PI * hertz * t
    const tones =
      Math.sin(turn) + Math.sin(2 * turn) / 4 + Math.sin(3 * turn) / 9 + Math.sin(4 * turn) / 16
    return held * 0.35 * tones
  })

/** A bass that swells a little. */
export const bass = (hertz: number, seconds: number): Sound =>
  sound(
    seconds,
    (t) =>
      Math.tanh(1.6 * Math.sin(2 * Math.PI * hertz * t)) *
      Math.min(1, t / 0.012, (seconds - t) / 0.03) *
      Math.exp(-t / 0.7),
  )

/** Something sung: pulses through two openings of a mouth, sliding into the tone. */
export function sung(hertz: number, seconds: number, vowel: number): Sound {
  let phase = 0
  const state = [0, 0, 0, 0]
  const openings = [500 + 350 * vowel, 1100 + 900 * (1 - vowel)]
  return sound(seconds, (t) => {
    const slide = 1 - 0.03 * Math.exp(-t / 0.05)
    const now = hertz * slide * (1 + 0.008 * Math.sin(2 * Math.PI * 5.3 * t))
    phase = (phase + now / RATE) % 1
    const pulse = phase < 0.4 ? Math.sin((Math.PI * phase) / 0.4) ** 2 - 0.2 : -0.2
    let out = 0
    for (let k = 0; k < 2; k++) {
      const w = (2 * Math.PI * (openings[k] as number)) / RATE
      const r = 0.97
      const y =
        pulse +
        2 * r * Math.cos(w) * (state[2 * k] as number) -
        r * r * (state[2 * k + 1] as number)
      state[2 * k + 1] = state[2 * k] as number
      state[2 * k] = y
      out += y * 0.03
    }
    return out * Math.min(1, t / 0.05, (seconds - t) / 0.06)
  })
}

export const hertzOf = (note: number): number => 440 * 2 ** ((note - 69) / 12)
