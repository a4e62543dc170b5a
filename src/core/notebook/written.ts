import type { Side } from '../body/side'
import { quoted } from '../entry/tokens'
import { FAMILIES } from '../moves/move'
import { labelOfSpan, labelOfTick, tick } from '../time/time'
import { newPhrase, type PhraseDraft, type Placed, pageSheet } from './drafts'
import { type Again, type Heading, headerIn, type LineKind } from './lines'
import { titleOf } from './wording'

/** What has been read of a page so far, and what is said of the line that is read now. */
export class Written {
  readonly phrases: PhraseDraft[] = []
  title: string | undefined
  lead: Side = 'R'
  /** What the line that is read now was understood as. */
  said: string[] = []
  readonly #header: string[] = []
  #order: Again[] = []
  /** Notes before anything is danced. */
  readonly #early: string[] = []
  /** Names the page gives its own phrases: what has none does not take them. */
  readonly #lettered: ReadonlySet<string>
  constructor(lettered: readonly string[]) {
    this.#lettered = new Set(lettered)
  }

  /** All of it as a sheet. */
  sheet(): string {
    const phrases = this.phrases.length > 0 ? this.phrases : [this.phrase()]
    return pageSheet({
      title: this.title,
      header: this.#header,
      early: this.#early,
      phrases,
      order: this.#order,
    })
  }

  /** What it is called, and what stands behind that. */
  setTitle(title: string): LineKind {
    // What stands behind the name of it may say more: Lamp and Shadow, 88 bpm, start right.
    const first = titleOf(title)
    const more = title.slice(first.length).split(/\s*[,;(–—]\s*|\s+-\s+|\.\s+/)
    const behind = more.join(', ').replace(/\)$/, '')
    const header = behind ? headerIn(behind, FAMILIES) : undefined
    this.title = header ? first.trim() : title.trim()
    this.said.push(`title ${this.title}`)
    if (header) this.setHeader(header, '')
    return 'title'
  }

  /** Lines of the header; one that says more than they do is noted too. */
  setHeader(header: readonly string[], line: string): LineKind {
    const isTold = line.length < 48
    for (const one of header) {
      this.#header.push(one)
      this.said.push(one)
      if (one.startsWith('lead ')) this.lead = one.endsWith('L') ? 'L' : 'R'
    }
    if (!isTold && line !== '') this.#early.push(line)
    return 'header'
  }

  /** Begins a phrase, under a free letter where it has no name of its own. */
  begin({ name, title, counts, times }: Heading): LineKind {
    const taken = new Set(this.phrases.map((phrase) => phrase.name))
    const free = () => {
      for (let i = 0; ; i++) {
        const letter =
          String.fromCharCode(65 + (i % 26)) + (i < 26 ? '' : String(Math.floor(i / 26)))
        if (!taken.has(letter) && !this.#lettered.has(letter)) return letter
      }
    }
    const own = name !== undefined && !taken.has(name) ? name : free()
    const phrase = newPhrase(own, title, counts)
    this.phrases.push(phrase)
    for (let i = 0; i < times; i++) this.#order.push({ name: own, mirrored: false })
    this.said.push(['phrase', own, title && quoted(title), counts].filter(Boolean).join(' '))
    return 'phrase'
  }

  /** Begins a phrase of which the page has no line. @param name a free letter where it has none */
  beginUnsaid(name?: string): void {
    const said = this.said
    this.said = []
    this.begin({ name, title: '', counts: undefined, times: 1 })
    this.said = said
  }

  /** The phrase that is written now; the first one is there before a page names it. */
  phrase(): PhraseDraft {
    if (this.phrases.length === 0) this.beginUnsaid('A')
    return this.phrases.at(-1) as PhraseDraft
  }

  /** Phrases as often as a page says they are danced, in place of what it said before. */
  setOrder(order: readonly Again[]): LineKind {
    this.#order = [...order]
    this.said.push(`order ${namesOf(order)}`)
    return 'order'
  }

  /** `Chorus again`, by the title of a phrase. */
  againNamed(line: string): Again | undefined {
    const [, before, behind] =
      /^(?:repeat\s+(.+?)|(.+?)\s+again)(?:\s+on\s+the\s+\w+)?[.!]?$/i.exec(line) ?? []
    const title = (before ?? behind)?.toLowerCase()
    const found = this.phrases.find((phrase) => phrase.title.toLowerCase() === title)
    return found && { name: found.name, mirrored: /\b(?:left|other)\b/i.test(line) }
  }

  again({ name, mirrored, times = 1 }: Again): LineKind {
    const all = name === undefined ? this.#order.map((one) => one.name) : [name]
    const last = [...new Set(all)]
    // A line of its own behind several phrases means all of them.
    const again = name === undefined ? last : all
    for (let i = 0; i < times; i++)
      for (const one of again) this.#order.push({ name: one, mirrored })
    this.said.push(`order … ${namesOf(again.map((one) => ({ name: one, mirrored })))}`)
    return 'order'
  }

  /** A line that says nothing that is danced stays as a note on the count before it. */
  note(line: string): LineKind {
    const phrase = this.phrases.at(-1)
    if (!phrase) this.#early.push(line)
    else this.place(phrase, { line: 'note', at: phrase.last.at[0] ?? 0, text: quoted(line) })
    this.said.push(`note ${quoted(line)}`)
    return 'note'
  }

  /** Puts something down in a phrase. */
  place(phrase: PhraseDraft, one: Pick<Placed, 'line' | 'at' | 'text'> & Partial<Placed>): void {
    const placed: Placed = { length: undefined, isEarly: false, optional: false, ...one }
    phrase.placed.push(placed)
    if (placed.line !== 'note' || this.said.length === 0)
      this.said.push(`${placed.line} ${whenWords(placed)} ${placed.text}`)
  }
}

const namesOf = (order: readonly Again[]): string =>
  order.map(({ name, mirrored }) => `${name}${mirrored ? '~' : ''}`).join(' ')

const whenWords = ({ at, length }: Placed): string =>
  length === undefined ? labelOfTick(tick(at)) : labelOfSpan({ at: tick(at), length: tick(length) })
