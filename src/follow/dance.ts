import { sideWord } from '../core/body/side'
import { type ShownDrill, wordsAt, wordsIn } from '../core/class/shownDrill'
import { aloneFrom, type Dancing } from '../core/combination/dancing'
import { drillTold, type Followed, followedDrill, followedTick } from '../core/following/followed'
import type { RestNews } from '../core/following/news.schema'
import { layerWord } from '../core/moves/vocabulary'
import { newPose } from '../core/pose/joints'
import { type SeenDance, seenDance } from '../core/pose/seen'
import type { View } from '../core/pose/views'
import type { CountWords } from '../core/teaching/say'
import { clockText } from '../core/time/clock'
import { TICKS_PER_COUNT } from '../core/time/time'
import { button, element } from '../page/element'
import {
  type Figure,
  figureOf,
  PAGE_VIEWS,
  type PageView,
  viewName,
  whoseRight,
} from '../page/figure'
import { stillTick } from '../page/frames'
import { finely } from '../page/now'

/** What is told of one drill, ready to be drawn. */
interface Shown {
  readonly key: string
  readonly title: string
  readonly drill: ShownDrill
  readonly seen: SeenDance
  readonly figure: Figure
  /** The parts of several dancers, by their ids. */
  readonly parts: readonly { readonly id: string; readonly name: string }[]
}

/** A line of what starts on a count. */
interface Line {
  readonly layer: string
  readonly text: string
}

const SIZES = ['usual', 'large', 'huge'] as const

/** What is danced: the count, the side, what starts, what comes, the figure. */
export class Dance {
  readonly element = element('main', { class: 'dance' })
  readonly #pose = newPose()
  readonly #isStill = matchMedia('(prefers-reduced-motion: reduce)')
  readonly #title = element('h1', {})
  readonly #where = element('p', { class: 'where' })
  readonly #count = element('p', { class: 'count', 'data-count': '' })
  readonly #side = element('b', { class: 'side' })
  readonly #said = element('p', { class: 'said', 'data-said': '' })
  readonly #now = element('ul', { class: 'now', 'aria-label': 'Now' })
  readonly #next = element('p', { class: 'next', 'data-next': '' })
  readonly #box = element('div', { class: 'box' })
  readonly #whose = element('p', { class: 'whose' })
  readonly #part = element('select', { 'aria-label': 'Whose part' })
  #followed: Followed = { pieces: [], drills: [], going: undefined }
  #shown: Shown | undefined
  #view: PageView | undefined
  #size = 0
  #hasWords = true
  #whoseId = ''

  constructor() {
    this.element.append(
      element('header', {}, this.#title, this.#where),
      this.#box,
      element(
        'div',
        { class: 'told', tabindex: '0', role: 'region', 'aria-label': 'What is danced' },
        element('div', { class: 'big' }, this.#count, this.#side, this.#said),
        this.#now,
        this.#next,
      ),
    )
    this.#part.addEventListener('change', () => {
      this.#whoseId = this.#part.value
    })
  }

  get title(): string {
    return this.#title.textContent ?? ''
  }

  buttons(): readonly HTMLElement[] {
    const view = button('View', () => {
      const at = PAGE_VIEWS.indexOf(this.#viewNow)
      this.#view = PAGE_VIEWS[(at + 1) % PAGE_VIEWS.length] ?? 'mirror'
      view.textContent = `View: ${viewName(this.#viewNow)}`
    })
    const size = button('Larger', () => {
      this.#size = (this.#size + 1) % SIZES.length
      this.element.dataset.size = SIZES[this.#size] ?? ''
      size.textContent = this.#size === SIZES.length - 1 ? 'Usual size' : 'Larger'
    })
    const words = button(
      'Words',
      () => {
        this.#hasWords = !this.#hasWords
        this.element.toggleAttribute('data-plain', !this.#hasWords)
        words.setAttribute('aria-pressed', String(this.#hasWords))
      },
      { 'aria-pressed': 'true' },
    )
    return [view, size, words, this.#part]
  }

  /** Takes on what was told. */
  show(followed: Followed): void {
    this.#followed = followed
    const told = drillTold(followed)
    const key = told ? `${told.drill.drill} ${told.piece.mark}` : ''
    if (told && key !== this.#shown?.key) {
      const drill = followedDrill(told.piece, told.drill)
      const parts = told.piece.combination.parts ?? []
      this.#shown = {
        key,
        title: told.drill.title,
        drill,
        seen: seenDance(drill.from, drill.combination),
        figure: figureOf({
          house: told.piece.house,
          combination: told.piece.combination,
          isAmongOthers: parts.length > 0,
        }),
        parts,
      }
      this.#showParts(parts)
    }
    const { going } = followed
    const shown = told && this.#shown
    tell(this.#title, going?.t === 'rest' ? going.title : (shown?.title ?? ''))
    this.#box.replaceChildren(...(shown ? [shown.figure.element, this.#whose] : []))
    this.element.toggleAttribute('data-empty', !shown)
  }

  #showParts(parts: Shown['parts']): void {
    this.#part.hidden = parts.length === 0
    this.#part.replaceChildren(
      element('option', { value: '' }, 'All parts'),
      ...parts.map(({ id, name }) =>
        element('option', { value: id, selected: id === this.#whoseId }, `Only ${name}`),
      ),
    )
    if (!parts.some(({ id }) => id === this.#whoseId)) this.#whoseId = ''
  }

  get #viewNow(): PageView {
    return this.#view ?? (this.#shown?.drill.stand === 'back' ? 'behind' : 'mirror')
  }

  /** Draws one frame. @param now the floor's clock */
  draw(now: (isDanced: boolean) => number | undefined): void {
    const { going } = this.#followed
    const isRunning = going?.t === 'run'
    const at = now(isRunning)
    const shown = drillTold(this.#followed) && this.#shown
    const tick =
      isRunning && shown && at !== undefined ? followedTick(shown.drill, going, at) : undefined
    if (shown && tick !== undefined) this.#drawDanced(shown, tick)
    else this.#drawRest(going?.t === 'rest' ? going : undefined, shown, at)
  }

  #drawDanced(shown: Shown, tick: number): void {
    const { drill } = shown
    const { performance: performed } = drill
    const moment = performed.momentAt(tick)
    const { segment, dancing } = moment
    // Where it is and when that was, for whoever asks.
    this.element.dataset.at = `${moment.index} ${moment.at.toFixed(3)} ${finely().toFixed(1)}`
    tell(
      this.#where,
      [
        segment.round > 0 ? `round ${segment.round} of ${segment.rounds}` : drill.times,
        drill.placeAt && !moment.isCountIn ? drill.placeAt(moment.tick) : moment.phrase,
      ]
        .filter(Boolean)
        .join(' · '),
    )
    const { side } = dancing
    this.#big(moment.count, moment.isMirrored ? (side === 'R' ? 'L' : 'R') : side)
    tell(this.#said, moment.said || (moment.isCountIn ? 'Ready' : ''))
    tell(this.#next, moment.next ? `in ${moment.next.counts}: ${moment.next.text}` : '')
    const drawn = this.#isStill.matches
      ? Math.min(performed.length - 0.01, stillTick(tick, TICKS_PER_COUNT))
      : tick
    const view = drill.isShown && segment.round > 1 ? 'behind' : this.#viewNow
    const dance = performed.danceAt(drawn)
    const dancers = shown.seen.dancers(drill.layers)
    // Who is chosen is danced from her own place.
    const own = this.#whoseId ? { ...dance.dancing, part: this.#whoseId } : undefined
    const isCounted = segment.round > 0
    this.#lines(
      linesOf(
        own && isCounted
          ? wordsIn({ simulation: drill.from(own) }, moment.tick, drill.layers)
          : wordsAt(drill, moment),
      ),
    )
    if (own) dancers(own).poseAt(dance.tick, this.#pose)
    else performed.poseAt(drawn, dancers, this.#pose)
    this.#figure(shown, { dancing: own ?? dance.dancing, tick: dance.tick, view })
  }

  #drawRest(rest: RestNews | undefined, shown: Shown | undefined, at: number | undefined): void {
    delete this.element.dataset.at
    const walk = rest?.walk
    this.#big(walk?.count === undefined ? '' : String(walk.count), walk?.side)
    tell(this.#where, walk?.phrase ?? '')
    const left =
      rest?.until !== undefined && at !== undefined
        ? clockText(Math.max(0, Math.round((rest.until - at) / 1000)))
        : ''
    tell(this.#said, left || (rest?.text ?? ''))
    this.#lines(walk?.lines.map(({ layer, text }) => ({ layer, text })) ?? [])
    tell(
      this.#next,
      [walk?.weight && `weight: ${walk.weight}`, walk?.next && `then ${walk.next}`]
        .filter(Boolean)
        .join(' · '),
    )
    if (!shown) return
    const { drill } = shown
    const dancing = {
      ...aloneFrom(walk?.side ?? drill.lead ?? 'R'),
      ...(this.#whoseId && { part: this.#whoseId }),
    }
    const tick = walk?.tick ?? drill.start
    shown.seen.dancers(drill.layers)(dancing).poseAt(tick, this.#pose)
    this.#figure(shown, { dancing, tick, view: this.#viewNow })
  }

  #figure(
    { seen, drill, figure }: Shown,
    { dancing, tick, view }: { dancing: Dancing; tick: number; view: View },
  ): void {
    this.#box.toggleAttribute('data-one', this.#whoseId !== '')
    tell(this.#whose, whoseRight(view))
    figure.draw(this.#pose, view, {
      carried: seen.carriedAt(dancing, tick, this.#pose, drill.layers),
      others: seen.othersAt(dancing, tick, this.#pose, drill.layers),
    })
  }

  #big(count: string, side: 'R' | 'L' | undefined): void {
    tell(this.#count, count)
    tell(this.#side, side ? sideWord[side] : '')
    if (this.#side.dataset.side !== (side ?? '')) this.#side.dataset.side = side ?? ''
  }

  #lines(lines: readonly Line[]): void {
    const text = lines.map(({ layer, text: own }) => `${layer} ${own}`).join('\n')
    if (this.#now.dataset.text === text) return
    this.#now.dataset.text = text
    this.#now.replaceChildren(
      ...lines.map((line) =>
        element(
          'li',
          { class: line.layer },
          element('b', {}, layerWord[line.layer as keyof typeof layerWord]),
          ` ${line.text}`,
        ),
      ),
    )
  }
}

const linesOf = (words: CountWords | undefined): readonly Line[] =>
  words
    ? [
        ...(words.feet.length > 0 ? [{ layer: 'feet', text: words.feet.join('. ') }] : []),
        ...words.layers,
      ]
    : []

/** Writes a text where it has changed. */
function tell(where: HTMLElement, text: string): void {
  if (where.textContent !== text) where.textContent = text
}
