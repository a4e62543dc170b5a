import type { Moment, Performance } from '../core/performance/performance'
import type { PageData } from '../core/practice/pageData'
import { stayAwake } from '../page/awake'
import { type OwnSong, ownSong } from './ownSong'
import { type Heard, type PageSound, pageSound } from './sound'

/** What is danced and heard now. */
export interface Now extends Moment {
  readonly of: Performance
  /** Tick of the whole performance. */
  readonly whole: number
}

/** What sounds on a page: performances one after the other, begun by a tap. */
export class Playing {
  #sound: PageSound | undefined
  #heard: Heard = { counts: true, rhythm: true, voice: true }
  #queue: readonly Performance[] = []
  #of: Performance | undefined
  #begun = 0
  #song: OwnSong | undefined
  readonly #data: PageData
  readonly #changed: (seconds: number) => void

  /** @param changed is told when it begins and ends, with the seconds that were danced since it began */
  constructor(data: PageData, changed: (seconds: number) => void) {
    this.#data = data
    this.#changed = changed
  }

  get isOn(): boolean {
    return this.#of !== undefined
  }

  get heard(): Heard {
    return this.#heard
  }

  hear(heard: Partial<Heard>): void {
    this.#heard = { ...this.#heard, ...heard }
    this.#sound?.hear(this.#heard)
  }

  play(performances: readonly Performance[]): void {
    this.stop()
    this.#queue = performances
    this.#begun = Date.now()
    stayAwake()
    this.#next()
  }

  stop(): void {
    this.#queue = []
    if (!this.#of) return
    // The player tells of it too, when nothing is on any more.
    this.#over()
    this.#sound?.player.stop()
  }

  now(): Now | undefined {
    const position = this.#sound?.player.position(this.#sound.late())
    if (!this.#of || !position) return undefined
    return { ...this.#of.momentAt(position.tick), of: this.#of, whole: position.tick }
  }

  /** The sound is made in the first tap. */
  #made(): PageSound {
    if (!this.#sound) {
      this.#sound = pageSound(this.#data, () => this.#song?.music)
      this.#sound.player.subscribe(() => this.#ended())
      this.#sound.hear(this.#heard)
    }
    return this.#sound
  }

  /** Takes the student's own copy of the song of the page. @throws where it can't be read */
  async openSong(file: Blob): Promise<OwnSong | undefined> {
    const { song } = this.#data
    if (!song) return undefined
    this.stop()
    this.#song = await ownSong(file, song, this.#made().context)
    return this.#song
  }

  #next(): void {
    const [first, ...rest] = this.#queue
    this.#queue = rest
    this.#of = first
    if (!first) return
    this.#made().player.play(first)
    this.#changed(0)
  }

  /** The player told that it began, or that all of it is over. */
  #ended(): void {
    if (!this.#of || this.#sound?.player.performed()) return
    if (this.#queue.length > 0) this.#next()
    else this.#over()
  }

  #over(): void {
    this.#of = undefined
    this.#changed((Date.now() - this.#begun) / 1000)
  }
}
