/** Samples of a piece: a whole number of the blocks a stretcher works in, about four seconds. */
export const PIECE = 1376 * 128

/** The sound of a song as it is held: two bytes a sample, in pieces, so that none of it is copied as a whole. */
export interface HeldSound {
  /** Samples a second. */
  readonly rate: number
  /** In samples. */
  readonly length: number
  readonly channels: number
  /** Each a row a channel, `PIECE` long but the last. */
  readonly pieces: readonly (readonly Int16Array<ArrayBuffer>[])[]
}

export const toWhole = (value: number): number =>
  Math.round(Math.max(-1, Math.min(1, value)) * 32_767)
export const fromWhole = (value: number): number => value / 32_767

/** Takes on sound as it is decoded, in rows of any length. */
export interface Holding {
  readonly take: (rows: readonly Float32Array[]) => void
  readonly all: () => HeldSound
}

export function holding(rate: number, channels: number): Holding {
  const pieces: Int16Array<ArrayBuffer>[][] = []
  let length = 0
  const open = () =>
    Array.from({ length: channels }, () => new Int16Array(PIECE)) as Int16Array<ArrayBuffer>[]
  return {
    take(rows) {
      const long = rows[0]?.length ?? 0
      for (let done = 0; done < long; ) {
        const into = length % PIECE
        if (into === 0) pieces.push(open())
        const piece = pieces.at(-1) as Int16Array[]
        const part = Math.min(PIECE - into, long - done)
        for (let c = 0; c < channels; c++) {
          const row = (rows[c] ?? rows[0]) as Float32Array
          const to = piece[c] as Int16Array
          for (let i = 0; i < part; i++) to[into + i] = toWhole(row[done + i] as number)
        }
        done += part
        length += part
      }
    },
    all() {
      const last = length % PIECE
      const whole = pieces.map((piece, i) =>
        i === pieces.length - 1 && last > 0 ? piece.map((row) => row.slice(0, last)) : piece,
      )
      return { rate, length, channels, pieces: whole }
    },
  }
}

/** A row a channel of the samples between two places; nothing sounds before the beginning and after the end. */
export function samplesOf(
  { pieces, channels, length }: HeldSound,
  from: number,
  to: number,
): readonly Float32Array<ArrayBuffer>[] {
  const rows = Array.from({ length: channels }, () => new Float32Array(to - from))
  for (let at = Math.max(0, from); at < Math.min(to, length); ) {
    const piece = pieces[Math.floor(at / PIECE)] as readonly Int16Array[]
    const end = Math.min(to, length, (Math.floor(at / PIECE) + 1) * PIECE)
    for (let c = 0; c < channels; c++) {
      const row = piece[c] as Int16Array
      const into = rows[c] as Float32Array
      for (let i = at; i < end; i++) into[i - from] = fromWhole(row[i % PIECE] as number)
    }
    at = end
  }
  return rows
}

/** The channels of a held sound mixed into one. */
export function mixedOf(sound: HeldSound): Float32Array<ArrayBuffer> {
  const { length, channels } = sound
  const mixed = new Float32Array(length)
  for (const [p, piece] of sound.pieces.entries())
    for (const row of piece)
      for (let i = 0; i < row.length; i++) {
        const at = p * PIECE + i
        mixed[at] = (mixed[at] as number) + fromWhole(row[i] as number) / channels
      }
  return mixed
}
