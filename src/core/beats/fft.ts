/** Turns frames into the strength of their frequencies, without making anything new each time. */
export interface Spectra {
  /** Writes the magnitudes of a frame's frequencies, from 0 to half the rate: half as many as samples, and one. */
  readonly magnitudes: (frame: Float64Array, into: Float64Array) => void
}

/**
 * A radix-2 transform of frames of one size, of which two samples are taken as one complex number.
 * @param size samples of a frame, a power of 2
 */
export function spectraOf(size: number): Spectra {
  const bits = Math.log2(size) - 1
  if (!Number.isInteger(bits)) throw new Error(`${size} is no power of 2`)
  const half = size / 2
  const cos = Float64Array.from({ length: half }, (_, i) => Math.cos((2 * Math.PI * i) / size))
  const sin = Float64Array.from({ length: half }, (_, i) => Math.sin((2 * Math.PI * i) / size))
  const places = Uint32Array.from({ length: half }, (_, i) => reversed(i, bits))
  const re = new Float64Array(half)
  const im = new Float64Array(half)
  return {
    magnitudes(frame, into) {
      for (let i = 0; i < half; i++) {
        const to = places[i] as number
        re[to] = frame[2 * i] as number
        im[to] = frame[2 * i + 1] as number
      }
      transform(re, im, cos, sin)
      for (let i = 0; i <= half; i++) {
        // Evens and odds are told apart by their mirror images.
        const a = i === half ? 0 : i
        const b = i === 0 ? 0 : half - i
        const evenRe = (re[a] as number) + (re[b] as number)
        const evenIm = (im[a] as number) - (im[b] as number)
        const oddRe = (im[a] as number) + (im[b] as number)
        const oddIm = (re[b] as number) - (re[a] as number)
        const c = i === half ? -1 : (cos[i] as number)
        const s = i === half ? 0 : (sin[i] as number)
        const x = evenRe + oddRe * c + oddIm * s
        const y = evenIm + oddIm * c - oddRe * s
        into[i] = 0.5 * Math.sqrt(x * x + y * y)
      }
    },
  }
}

/** @param cos of twice as many steps as there are numbers, half a turn of them */
function transform(re: Float64Array, im: Float64Array, cos: Float64Array, sin: Float64Array): void {
  const size = re.length
  for (let half = 1; half < size; half *= 2) {
    const step = size / half
    for (let start = 0; start < size; start += 2 * half)
      for (let k = 0; k < half; k++) {
        const c = cos[k * step] as number
        const s = sin[k * step] as number
        const a = start + k
        const b = a + half
        const right = (re[b] as number) * c + (im[b] as number) * s
        const up = (im[b] as number) * c - (re[b] as number) * s
        const wasRe = re[a] as number
        const wasIm = im[a] as number
        re[b] = wasRe - right
        im[b] = wasIm - up
        re[a] = wasRe + right
        im[a] = wasIm + up
      }
  }
}

function reversed(value: number, bits: number): number {
  let left = value
  let out = 0
  for (let i = 0; i < bits; i++) {
    out = (out << 1) | (left & 1)
    left >>= 1
  }
  return out
}

/** A window that lets a frame begin and end at rest. */
export const hann = (size: number): Float64Array =>
  Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
