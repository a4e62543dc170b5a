import { fromWhole, toWhole } from './held'
import { createStretcher, type Stretcher } from './stretch'

/** Some of a song that is wanted slower or faster. */
export interface SlowWish {
  readonly id: number
  /** Names the song; what goes on from where the last wish ended is worked out as one. */
  readonly mark: string
  readonly rate: number
  readonly speed: number
  readonly from: number
  readonly length: number
  /** Where `rows`, what is to be heard for it, begins. */
  readonly first: number
  readonly rows: readonly Int16Array<ArrayBuffer>[]
}

export interface SlowMade {
  readonly id: number
  /** A row a channel. */
  readonly rows: readonly Int16Array<ArrayBuffer>[]
}

let last: { readonly key: string; readonly stretcher: Promise<Stretcher> } | undefined

self.onmessage = async ({ data }: MessageEvent<SlowWish>) => {
  const { id, mark, rate, speed, from, length, first, rows } = data
  const key = `${mark} ${rate} ${rows.length} ${speed}`
  if (last?.key !== key) last = { key, stretcher: createStretcher(rate, rows.length, speed) }
  const stretcher = await last.stretcher
  const heard = rows.map((row) => Float32Array.from(row, fromWhole))
  const made: SlowMade = {
    id,
    rows: stretcher
      .window(from, length, { first, rows: heard })
      .map((row) => Int16Array.from(row, toWhole)),
  }
  self.postMessage(made, { transfer: made.rows.map(({ buffer }) => buffer) })
}
