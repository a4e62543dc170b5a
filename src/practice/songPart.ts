import type { PageSong } from '../core/practice/pageData'
import { button, element } from '../page/element'
import type { OwnSong } from './ownSong'

interface SongHands {
  readonly open: (file: Blob) => Promise<OwnSong | undefined>
  /** Dances with it; so many seconds later than in the song the counts are of. */
  readonly dance: (later: number) => void
}

/** Danced with the student's own copy of the song: opened, put on its 1 where it is another version. */
export class SongPart {
  readonly element: HTMLElement
  readonly #song: PageSong
  readonly #hands: SongHands
  readonly #state = element('p', { role: 'status' })
  readonly #buttons = element('div', { class: 'answers' })
  readonly #file: HTMLInputElement
  #own: OwnSong | undefined
  /** Known once it is the same song, or 1 was tapped. */
  #later: number | undefined

  constructor(song: PageSong, hands: SongHands) {
    this.#song = song
    this.#hands = hands
    this.#file = element('input', {
      type: 'file',
      accept: 'audio/*,video/*',
      'aria-label': `Your own copy of ${song.title}`,
    })
    this.#file.addEventListener('change', () => void this.#open())
    this.element = element(
      'div',
      { class: 'song' },
      element('p', {}, `With ${song.title}: open your own copy; it stays on this machine.`),
      this.#file,
      this.#state,
      this.#buttons,
    )
  }

  /** Whether it can be danced with it. */
  get isThere(): boolean {
    return this.#later !== undefined
  }

  async #open(): Promise<void> {
    const file = this.#file.files?.[0]
    if (!file) return
    this.#later = undefined
    this.#buttons.replaceChildren()
    this.#state.textContent = 'Listening to it…'
    try {
      this.#own = await this.#hands.open(file)
    } catch {
      this.#state.textContent = 'This browser can’t read that file. Try mp3, m4a, ogg or wav.'
      return
    }
    if (this.#own?.isSame) this.#ready(0)
    else this.#ask()
  }

  /** Another version: where its 1 is. */
  #ask(): void {
    this.#state.textContent =
      'This is another version of the song. Play it, and tap on the 1 you begin to dance on.'
    this.#buttons.replaceChildren(
      button('Play it', () => {
        const now = this.#own?.listen()
        if (!now) return
        this.#buttons.replaceChildren(
          button(
            'Now: 1',
            () => {
              const second = now()
              this.#own?.stop()
              this.#ready(second - (this.#song.knots[0]?.[1] ?? 0))
            },
            { class: 'main' },
          ),
        )
      }),
    )
  }

  #ready(later: number): void {
    this.#later = later
    this.#state.textContent = 'It is there.'
    this.#buttons.replaceChildren(
      button('Dance with the song', () => this.#hands.dance(later), { class: 'main' }),
    )
  }
}
