/** Samples that are worked out at once. */
const BLOCK = 128
/** What is worked out before what is asked for, so that it is as if it had gone on all the time. */
const LEAD_BLOCKS = 130
/** Samples of the song beside those that are asked for which are heard too. */
const BESIDE = 16_384
/** It sounds by so much later than its place, in seconds; measured on struck sounds at half to full speed. */
const LATE = 0.001

/** The processor as its package registers it: it runs in an audio worklet, or wherever it is given a clock. */
interface Processor {
  readonly port: Port
  readonly process: (
    inputs: readonly (readonly Float32Array[])[],
    outputs: readonly (readonly Float32Array[])[],
    parameters: Readonly<Record<string, never>>,
  ) => boolean
}
type Make = new (options: unknown) => Processor

/** What the processor and its owner say to each other; the owner's side is asked by its handler alone. */
class Port {
  onmessage: ((event: { readonly data: unknown[] }) => void) | null = null
  onReady: () => void = () => {}
  postMessage([what]: readonly unknown[]) {
    if (what === 'ready') this.onReady()
  }
}

let registered: Promise<Make> | undefined

/** Loads the processor: what it takes for an audio worklet is given to it here. */
function processor(): Promise<Make> {
  registered ??= new Promise<Make>((done, failed) => {
    Object.assign(globalThis, {
      sampleRate: 44_100,
      currentTime: 0,
      AudioWorkletProcessor: class {
        readonly port = new Port()
      },
      registerProcessor: (_: string, make: Make) => done(make),
    })
    import('signalsmith-stretch').catch(failed)
  })
  return registered
}

/** Some of a song at another speed and the same pitch. */
export interface Stretcher {
  /**
   * @param from the first sample of the slower or faster song that is asked for
   * @param heard the song as it is, at least what is to be heard for it
   */
  readonly window: (
    from: number,
    length: number,
    heard: HeardPart,
  ) => readonly Float32Array<ArrayBuffer>[]
}

/** Some of a song as it is. */
interface HeardPart {
  /** Its first sample, on those of the song; may be before it begins. */
  readonly first: number
  /** A row a channel. */
  readonly rows: readonly Float32Array[]
}

/** The samples of a song that have to be heard for some of it at another speed. */
export const heardFor = (
  from: number,
  length: number,
  speed: number,
): readonly [number, number] => [
  Math.floor((from - LEAD_BLOCKS * BLOCK) * speed) - BESIDE,
  Math.ceil((from + length + BLOCK) * speed) + BESIDE,
]

/**
 * @param rate samples a second
 * @param speed of the song as it is, 0.4 to 1.2
 */
export async function createStretcher(
  rate: number,
  channels: number,
  speed: number,
): Promise<Stretcher> {
  const Processor = await processor()
  const clock = globalThis as unknown as { sampleRate: number; currentTime: number }
  clock.sampleRate = rate
  const node = new Processor({ numberOfOutputs: 1, outputChannelCount: [channels] })
  await new Promise<void>((done) => {
    node.port.onReady = done
  })
  const tell = (...what: unknown[]) => node.port.onmessage?.({ data: [0, ...what] })
  /** Blocks that were worked out since it began, on the clock of the processor. */
  let blocks = 0
  /** The sample that comes next, where it goes on from what it did last. */
  let next: number | undefined
  return {
    window(from, length, { first, rows: heard }) {
      clock.sampleRate = rate
      const goesOn = next === from
      const begin = goesOn ? from : from - LEAD_BLOCKS * BLOCK
      const all = Math.ceil((from + length - begin) / BLOCK)
      tell('dropBuffers')
      tell('addBuffers', heard)
      tell('schedule', {
        output: (blocks * BLOCK) / rate,
        input: (begin * speed - first) / rate + LATE * speed,
        rate: speed,
        active: true,
      })
      const rows = Array.from({ length: channels }, () => new Float32Array(all * BLOCK))
      for (let i = 0; i < all; i++, blocks++) {
        clock.currentTime = (blocks * BLOCK) / rate
        const out = rows.map((row) => row.subarray(i * BLOCK, (i + 1) * BLOCK))
        node.process([[]], [out], {})
      }
      next = begin + all * BLOCK
      return rows.map((row) => row.slice(from - begin, from - begin + length))
    },
  }
}
