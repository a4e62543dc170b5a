import { newPose } from '../core/pose/joints'
import type { View } from '../core/pose/views'
import type { How, PageDance, WalkedCount } from '../core/practice/pageDance'
import type { PageData } from '../core/practice/pageData'
import { TICKS_PER_COUNT } from '../core/time/time'
import { element } from '../page/element'
import { figureOf, whoseRight } from '../page/figure'
import { stillTick } from '../page/frames'
import { WordList } from '../page/wordList'
import type { Now } from './playing'

/** What is seen where nothing is played. */
interface Still {
  readonly how: How
  readonly view: View
  /** The counts of the chunk; none where there is no chunk. */
  readonly walk: readonly WalkedCount[]
  /** The count a walk has come to. */
  readonly walked: WalkedCount | undefined
}

/** The dancer with the count, what is called, and the words of all counts: what changes while it is danced. */
export class Picture {
  readonly words = new WordList()
  readonly #dance: PageDance
  readonly #figure: ReturnType<typeof figureOf>
  readonly #pose = newPose()
  readonly #count = element('p', { class: 'count', 'aria-hidden': 'true' })
  readonly #said = element('p', { class: 'said' })
  readonly #isStill = matchMedia('(prefers-reduced-motion: reduce)')

  constructor(data: PageData, dance: PageDance) {
    this.#dance = dance
    this.#figure = figureOf({ ...data, isAmongOthers: data.part !== undefined })
  }

  /** The box it is seen in. */
  box(view: View): HTMLElement {
    return element(
      'div',
      { class: 'box' },
      this.#figure.element,
      element('p', { class: 'whose' }, whoseRight(view)),
      this.#count,
      this.#said,
    )
  }

  draw(now: Now | undefined, { how: { layers, side }, view, walk, walked }: Still): void {
    const dancers = this.#dance.dancers(layers)
    const dancing = now?.dancing ?? this.#dance.dancingOn(side)
    let at: number
    if (now) {
      // Who wants no motion sees each count as it ends.
      const whole = this.#isStill.matches ? stillTick(now.whole, TICKS_PER_COUNT) : now.whole
      now.of.poseAt(whole, dancers, this.#pose)
      at = now.tick + whole - now.whole
      this.#tell(now.count, now.said || (now.isCountIn ? 'Ready' : ''))
      const words = this.#dance.wordsAt(dancing, now.tick, layers)
      this.words.show(words, now.isCountIn ? '' : now.count)
    } else {
      at = walked?.at ?? (walk[0]?.at ?? TICKS_PER_COUNT) - TICKS_PER_COUNT
      dancers(dancing).poseAt(at, this.#pose)
      const count = walked ? String(walked.words.count) : ''
      this.#tell(count, walked?.free ?? '')
      this.words.show(
        walk.map(({ words }) => words),
        count,
      )
    }
    this.#figure.draw(this.#pose, view, {
      carried: this.#dance.carriedAt(dancing, at, this.#pose, layers),
      others: this.#dance.othersAt(dancing, at, this.#pose, layers),
    })
  }

  #tell(count: string, said: string): void {
    if (this.#count.textContent !== count) this.#count.textContent = count
    if (this.#said.textContent !== said) this.#said.textContent = said
  }
}
