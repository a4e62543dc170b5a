import { LAYERS } from '../core/body/layers'
import { otherSide } from '../core/body/side'
import { type How, pageDance, type WalkedCount } from '../core/practice/pageDance'
import { type Chunk, type PageData, type Stop, sidesOf } from '../core/practice/pageData'
import { secondsOnPage } from '../core/practice/voice'
import { TICKS_PER_COUNT } from '../core/time/time'
import { button, element } from '../page/element'
import { eachFrame } from '../page/frames'
import { wordsOf } from '../page/wordList'
import { type Chosen, controls, LEAST_PERCENT } from './controls'
import { onKeys } from './keys'
import { cleanOn, type MarkStore, type Marks, marked, withSeconds } from './marks'
import { firstWords, lastWords } from './pages'
import { Picture } from './picture'
import { Playing } from './playing'
import { printsHandout } from './print'
import { sendBack } from './sendBack'
import { SongPart } from './songPart'
import { stopWords } from './stopWords'

/** A clean round is offered so much faster, and two that were not yet come so much slower. */
const FASTER = 20
const SLOWER = 10
const EIGHT = 8 * TICKS_PER_COUNT

const today = (): string => {
  const now = new Date()
  const part = (value: number) => String(value).padStart(2, '0')
  return `${now.getFullYear()}-${part(now.getMonth() + 1)}-${part(now.getDate())}`
}

/** The practice page: one chunk at a time, and each stop waits until it was danced. */
export class Screen {
  readonly #data: PageData
  readonly #store: MarkStore
  readonly #dance: ReturnType<typeof pageDance>
  readonly #picture: Picture
  readonly #root: HTMLElement
  readonly #playing: Playing
  readonly #song: SongPart | undefined
  #marks: Marks
  #chosen: Chosen
  /** Rounds of this stop that were not yet, one after the other. */
  #missed = 0
  #walked = 0
  #walk: readonly WalkedCount[] = []
  /** All of it is danced, without a stop. */
  #isAll = false
  #isDone = false
  readonly #live = element('p', { class: 'read', 'aria-live': 'polite' })

  constructor(data: PageData, store: MarkStore, root: HTMLElement) {
    this.#data = data
    this.#store = store
    this.#root = root
    this.#marks = store.read()
    this.#dance = pageDance(data, data.voice && secondsOnPage(data))
    printsHandout(data, this.#dance)
    this.#picture = new Picture(data, this.#dance)
    this.#chosen = {
      percent: 100,
      side: data.lead,
      view: 'mirror',
      only: undefined,
      isLoop: false,
    }
    this.#playing = new Playing(data, (seconds) => {
      if (seconds > 0) this.#keep({ kept: withSeconds(this.#marks.kept, today(), seconds) })
      this.#buttons()
    })
    this.#song =
      data.song &&
      new SongPart(data.song, {
        open: (file) => this.#playing.openSong(file),
        dance: (later) => {
          const danced = this.#dance.withSong({ ...this.#how, layers: LAYERS }, later)
          if (danced) this.#playing.play([danced])
        },
      })
    onKeys({
      ' ': () => this.#toggle(),
      j: () => this.#eightBack(),
      ArrowRight: () => this.#step(1),
      ArrowLeft: () => this.#step(-1),
    })
    this.#enter()
    eachFrame(() => this.#draw())
  }

  get #chunk(): Chunk | undefined {
    return this.#data.chunks[this.#marks.chunk]
  }

  get #stop(): Stop | undefined {
    return this.#chunk?.stops[this.#marks.stop]
  }

  get #how(): How {
    const { side, percent, only } = this.#chosen
    const layers = only ? [only] : this.#isAll ? LAYERS : (this.#stop?.layers ?? LAYERS)
    return { side, percent, layers }
  }

  #keep(marks: Partial<Marks>): void {
    this.#marks = { ...this.#marks, ...marks }
    this.#store.write(this.#marks)
  }

  // From stop to stop

  /** Comes to a stop, or to the first or the last page. */
  #enter(): void {
    this.#playing.stop()
    this.#missed = 0
    this.#walked = 0
    this.#isAll = false
    const { lead } = this.#data
    this.#chosen = {
      ...this.#chosen,
      only: undefined,
      side: this.#stop?.do === 'other-side' ? otherSide[lead] : lead,
      percent: this.#stop?.percent ?? 100,
    }
    this.#render()
  }

  #go(chunk: number, stop: number): void {
    this.#isDone = chunk >= this.#data.chunks.length
    this.#keep({ chunk: this.#isDone ? -1 : chunk, stop })
    this.#enter()
    this.#root.querySelector<HTMLElement>('h2')?.focus()
  }

  #next(): void {
    const { chunk, stop } = this.#marks
    if (stop + 1 < (this.#chunk?.stops.length ?? 0)) this.#go(chunk, stop + 1)
    else this.#go(chunk + 1, 0)
  }

  #markRound(isClean: boolean): void {
    const chunk = this.#chunk
    if (!chunk) return
    const { side, percent } = this.#chosen
    this.#keep({ kept: marked(this.#marks.kept, { chunk: chunk.id, side, percent }, isClean) })
  }

  #notYet(): void {
    this.#markRound(false)
    this.#missed += 1
    const { percent } = this.#chosen
    this.#playing.stop()
    this.#choose(
      this.#missed % 2 === 0 ? { percent: Math.max(LEAST_PERCENT, percent - SLOWER) } : {},
    )
  }

  /** Clean, and the same once more, faster. */
  #faster(): void {
    this.#markRound(true)
    this.#playWith({ percent: Math.min(100, this.#chosen.percent + FASTER) })
  }

  /** The stop from its start, danced otherwise. */
  #playWith(chosen: Partial<Chosen>): void {
    this.#playing.stop()
    this.#choose(chosen)
    this.#play()
  }

  /** The first chunk that is not clean yet. */
  #firstOpen(): number {
    const [lead = 'R'] = sidesOf(this.#data)
    const { kept } = this.#marks
    return Math.max(
      0,
      this.#data.chunks.findIndex(({ id }) => cleanOn(kept, id, lead) === 0),
    )
  }

  // Playing

  #play(from?: number): void {
    const chunk = this.#chunk
    const stop = this.#stop
    const how = this.#how
    this.#playing.play(
      !this.#isAll && chunk && stop && stop.do !== 'walk'
        ? this.#dance.stopAt(chunk, stop, how, { from, isLoop: this.#chosen.isLoop })
        : [this.#dance.allFrom(this.#isAll ? undefined : chunk, how)],
    )
  }

  #toggle(): void {
    if (this.#playing.isOn) this.#playing.stop()
    else this.#play()
  }

  /** Eight counts back, counted in; from the start where there are none. */
  #eightBack(): void {
    const now = this.#playing.now()
    if (now) this.#play(Math.max(0, now.tick - EIGHT))
  }

  #danceAlong(): void {
    this.#playing.stop()
    this.#isAll = !this.#isAll
    this.#choose({ percent: this.#isAll ? 100 : (this.#stop?.percent ?? 100) })
    if (this.#isAll) this.#play()
  }

  /** One count on, or back, of a walk; behind the last one the next stop. */
  #step(by: number): void {
    if (this.#stop?.do !== 'walk') return
    if (by > 0 && this.#walked >= this.#walk.length) {
      this.#next()
      return
    }
    this.#walked = Math.max(0, this.#walked + by)
    const walked = this.#walk[this.#walked - 1]
    this.#live.textContent = walked
      ? `${walked.words.count}: ${wordsOf(walked.words)}. ${walked.free}.`
      : ''
    this.#buttons()
    this.#draw()
  }

  #choose(chosen: Partial<Chosen>): void {
    const wasOn = this.#playing.isOn
    this.#chosen = { ...this.#chosen, ...chosen }
    // The view alone changes nothing of what sounds.
    if (wasOn && Object.keys(chosen).some((key) => key !== 'view')) this.#play()
    const isOpen = this.#root.querySelector('details')?.open === true
    this.#render()
    const details = this.#root.querySelector('details')
    if (details) details.open = isOpen
  }

  // The picture

  #draw(): void {
    this.#picture.draw(this.#playing.now(), {
      how: this.#how,
      view: this.#chosen.view,
      walk: this.#walk,
      walked: this.#walk[this.#walked - 1],
    })
  }

  // The page

  #render(): void {
    const { title, whose, by } = this.#data
    const chunk = this.#chunk
    const stop = this.#stop
    this.#walk = chunk ? this.#dance.walk(chunk, this.#how) : []
    const box = this.#picture.box(this.#chosen.view)
    const main =
      chunk && stop
        ? [box, this.#stopText(chunk, stop)]
        : this.#isDone
          ? [
              lastWords(this.#data, this.#marks.kept),
              sendBack(this.#data, this.#marks.kept, (kept) => this.#keep({ kept })),
            ]
          : [box, firstWords(this.#data, this.#store.stays)]
    this.#root.replaceChildren(
      element(
        'header',
        {},
        element('h1', {}, [title || 'Practice', whose].filter(Boolean).join(' · ')),
        by && element('p', { class: 'by' }, by),
        this.#bar(),
      ),
      element('main', {}, ...main),
      element(
        'footer',
        {},
        element('div', { class: 'play' }),
        controls(
          this.#chosen,
          this.#playing.heard,
          { layers: stop?.layers ?? LAYERS, hasVoice: this.#data.voice !== undefined },
          {
            choose: (chosen) => this.#choose(chosen),
            hear: (heard) => this.#playing.hear(heard),
          },
        ),
      ),
      this.#live,
    )
    this.#buttons()
  }

  #bar(): HTMLElement {
    const { chunks } = this.#data
    const { kept, chunk: at } = this.#marks
    return element(
      'nav',
      { 'aria-label': 'Parts' },
      ...chunks.map(({ id, name, title }, i) => {
        const isClean = sidesOf(this.#data).every((side) => cleanOn(kept, id, side) > 0)
        return button(name, () => this.#go(i, 0), {
          'aria-current': i === at ? 'step' : undefined,
          'aria-label': [name, title, isClean && 'clean'].filter(Boolean).join(', '),
          class: isClean ? 'clean' : '',
        })
      }),
      button('Send back', () => this.#go(chunks.length, 0), { class: 'quiet' }),
    )
  }

  #stopText(chunk: Chunk, stop: Stop): HTMLElement {
    const { title, task } = stopWords(stop, chunk, this.#data)
    const isTold = stop.do === 'walk' || stop.do === 'try'
    return element(
      'div',
      { class: 'text', tabindex: '0', role: 'region', 'aria-label': 'What to do' },
      element('h2', { tabindex: '-1' }, title),
      element('p', { class: 'task' }, task),
      this.#marks.stop === 0 && chunk.title && element('p', { class: 'note' }, chunk.title),
      element('div', { class: 'answers' }),
      // Danced to the song once it goes to the rhythm.
      stop.do === 'dance' && this.#song?.element,
      ...(isTold ? chunk.say : []).map((line) => element('p', { class: 'line' }, line)),
      stop.do === 'try' &&
        chunk.easier.length > 0 &&
        element('p', { class: 'line' }, `Easier: ${chunk.easier.join('; ')}.`),
      this.#picture.words.element,
    )
  }

  /** What can be answered, and what the large button does, as things are now. */
  #buttons(): void {
    const stop = this.#stop
    const isOn = this.#playing.isOn
    this.#root.toggleAttribute('data-on', isOn)
    // What is to be answered stands at the top again.
    if (!isOn) this.#root.querySelector('.text')?.scrollTo(0, 0)
    this.#root.querySelector('.play')?.replaceChildren(...this.#playButtons())
    if (stop) this.#root.querySelector('.answers')?.replaceChildren(...this.#answers(stop))
  }

  /** What earlier parts of a series have taught, danced once. */
  #soFar(): readonly HTMLElement[] {
    const before = this.#data.inSeries && !this.#isDone ? this.#dance.soFar(this.#how) : undefined
    return before ? [button('So far', () => this.#playing.play([before]))] : []
  }

  #playButtons(): readonly HTMLElement[] {
    const { isOn } = this.#playing
    const along = button(
      this.#isAll ? 'Back to the stop' : 'Dance along',
      () => this.#danceAlong(),
      { 'aria-pressed': String(this.#isAll) },
    )
    if (!this.#chunk && !isOn && !this.#isAll)
      return [
        button(
          this.#isDone ? 'From the start' : this.#marks.kept.rows.length > 0 ? 'Go on' : 'Start',
          () => this.#go(this.#isDone ? 0 : this.#firstOpen(), 0),
          { class: 'main' },
        ),
        ...this.#soFar(),
        along,
      ]
    if (this.#stop?.do === 'walk' && !isOn && !this.#isAll)
      return [
        button('Back', () => this.#step(-1), { disabled: this.#walked === 0 }),
        button(this.#walked < this.#walk.length ? 'Next count' : 'Go on', () => this.#step(1), {
          class: 'main',
        }),
        along,
      ]
    return [
      button(isOn ? 'Stop' : 'Play', () => this.#toggle(), { class: 'main' }),
      button('8 back', () => this.#eightBack(), { disabled: !isOn }),
      along,
    ]
  }

  #answers({ do: kind, layers }: Stop): readonly HTMLElement[] {
    if (kind === 'walk' || this.#isAll) return []
    if (kind === 'show') return [button('Go on', () => this.#next(), { class: 'main' })]
    const faster = this.#chosen.percent + FASTER
    return [
      button(
        'Clean',
        () => {
          this.#markRound(true)
          this.#next()
        },
        { class: 'main' },
      ),
      button('Not yet', () => this.#notYet()),
      button('Again', () => this.#play()),
      ...(faster <= 100
        ? [button(`Clean, now at ${faster} %`, () => this.#faster(), { class: 'quiet' })]
        : []),
      ...(this.#missed >= 2 && layers.length > 1 && layers.includes('feet')
        ? [button('Feet only once?', () => this.#playWith({ only: 'feet' }), { class: 'quiet' })]
        : []),
      button('Later', () => this.#next(), { class: 'quiet' }),
    ]
  }
}
