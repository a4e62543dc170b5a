import type { Layer } from '../body/layers'
import { quoted } from '../entry/tokens'
import { FAMILIES } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { isHeaderWord, PHRASE_WORDS, type PhraseWord } from '../sheet/lines'
import { readSheet } from '../sheet/readSheet'
import { slotAt, TICKS_PER_COUNT, type Tick } from '../time/time'
import { actionsIn, thingsIn } from './actions'
import { type CountsRead, countsAt, piecesOf } from './counts'
import type { PhraseDraft } from './drafts'
import {
  againIn,
  type Heading,
  headerIn,
  headingIn,
  isSongPart,
  type LineKind,
  layerBefore,
  openedIn,
  orderIn,
  withoutBullet,
} from './lines'
import { meantBy } from './meaning'
import type { Meaning } from './meant'
import { isOpen, type Page, type PageLine, type PageWish, type Piece } from './read'
import { type Role, type TableRow, tableIn } from './table'
import { isHeld, spread, timesOf, whenGoesOn } from './timing'
import { sheetIn } from './wholeSheet'
import { asidesIn, countsFirst, SEVERAL_WORDS, timesIn, titleOf, withoutLength } from './wording'
import { Written } from './written'

/** As long as a page of a notebook may be. */
const MOST_PAGE = 40_000

/**
 * Reads a page as it was written in a notebook, a document or a table: lines in any common writing
 * become a combination. What has several meanings is a choice; what nobody understands stays as a note.
 */
export function readPage(text: string, vocabulary: Vocabulary, wish: PageWish = {}): Page {
  const page = text
    .slice(0, MOST_PAGE)
    .replace(/\r\n?/g, '\n')
    .replace(/\u00a0/g, ' ')
  return sheetIn(page, vocabulary) ?? new Reading(page, vocabulary, wish).read()
}

/** A piece with its counts, before it has a place. */
interface Action {
  readonly piece: Piece
  readonly layer: Layer | undefined
  readonly meaning: Meaning | undefined
}

class Reading {
  readonly #page: string
  readonly #vocabulary: Vocabulary
  readonly #wish: PageWish
  readonly #lines: PageLine[] = []
  readonly #written: Written
  #pieces: Piece[] = []
  constructor(page: string, vocabulary: Vocabulary, wish: PageWish) {
    this.#page = page
    this.#vocabulary = vocabulary
    this.#wish = wish
    this.#written = new Written(
      page.split('\n').flatMap((line) => {
        const bare = withoutBullet(line)
        return (openedIn(bare)?.heading ?? headingIn(bare))?.name ?? []
      }),
    )
  }

  read(): Page {
    const table = tableIn(this.#page, this.#wish.columns)
    const all = this.#page.split('\n')
    if (table) {
      for (const row of table.rows) this.#line(row.number, row.text, (kind) => this.#row(row, kind))
    } else
      for (const [i, line] of all.entries())
        if (line.trim() !== '')
          this.#line(i + 1, line, (kind) => this.#text(line, all.slice(i + 1), kind))
    return {
      lines: this.#lines,
      combination: readSheet(this.#written.sheet(), this.#vocabulary).combination,
      ...(table && { columns: table.columns }),
    }
  }

  /** Reads one line; `make` says what kind of line it was. */
  #line(number: number, text: string, make: (kind: LineKind | undefined) => LineKind): void {
    this.#pieces = []
    this.#written.said = []
    const kind = make(this.#wish.kinds?.[number])
    this.#lines.push({
      number,
      text: text.trim(),
      kind,
      said: this.#written.said,
      pieces: this.#pieces,
      isUnsure: this.#pieces.some(isOpen),
    })
  }

  #text(typed: string, behind: readonly string[], wanted: LineKind | undefined): LineKind {
    const line = withoutBullet(typed)
    if (wanted === 'note') return this.#written.note(line)
    if (wanted === 'title' || /^title\s*:/i.test(line))
      return this.#written.setTitle(line.replace(/^title\s*:\s*/i, ''))
    if (wanted === undefined) {
      const known = this.#asSheet(line)
      if (known) return known
    }
    const order = orderIn(line)
    if (order && (wanted === undefined || wanted === 'order')) {
      return this.#written.setOrder(order)
    }
    const again = this.#written.againNamed(line) ?? againIn(line)
    if (again && this.#written.phrases.length > 0 && (wanted === undefined || wanted === 'order'))
      return this.#written.again(again)
    const opened = wanted === undefined ? openedIn(line) : undefined
    if (opened) {
      const begun = this.#written.begin(opened.heading)
      if (opened.rest === '') return begun
      if (!this.#isDanced(opened.rest)) {
        this.#written.note(opened.rest)
        return begun
      }
      this.#danced(opened.rest)
      return 'danced'
    }
    const heading = this.#heading(line, behind)
    if (wanted === 'phrase' || (wanted === undefined && heading))
      return this.#written.begin(
        heading ?? { name: undefined, title: line, counts: undefined, times: 1 },
      )
    if (wanted === undefined || wanted === 'header') {
      const header =
        this.#written.phrases.every(({ placed }) => placed.length === 0) || wanted === 'header'
          ? headerIn(line, FAMILIES)
          : undefined
      const hasCounts = countsAt(line) !== undefined && !/\b(?:bpm|tempo)\b/i.test(line)
      // What stands before it is what it is called: Lamp and Shadow, 88 bpm.
      const isNamed =
        this.#written.title === undefined && headerIn(titleOf(line), FAMILIES) === undefined
      if (header && !hasCounts && isNamed && !/^\w+\s*[:=]/.test(line))
        return this.#written.setTitle(line)
      // A title may say for whom it is.
      const isTitle =
        this.#written.title === undefined &&
        this.#lines.length === 0 &&
        header?.length === 1 &&
        header[0]?.startsWith('level') &&
        !/[:=]/.test(line)
      if (header && isTitle) this.#written.title = line
      if (header && !hasCounts) return this.#written.setHeader(header, line)
    }
    if (wanted !== 'danced' && !this.#isDanced(line)) {
      if (this.#written.title === undefined && this.#written.phrases.length === 0)
        return this.#written.setTitle(line.replace(/:$/, ''))
      return this.#written.note(line)
    }
    this.#danced(line)
    return 'danced'
  }

  /** What begins a phrase: a heading, or a few words over a line with counts. */
  #heading(line: string, behind: readonly string[]): Heading | undefined {
    const isFirst = this.#written.title === undefined && this.#written.phrases.length === 0
    const found = headingIn(line)
    const place = { layer: undefined, lead: this.#written.lead, vocabulary: this.#vocabulary }
    // The first line of a page is what it is called, unless it says how many counts.
    if (
      isFirst &&
      found &&
      found.name === undefined &&
      found.counts === undefined &&
      !isSongPart(line)
    )
      return undefined
    const isMove = () => meantBy(withoutLength(line).text, place)?.isUnsure === false
    if (found)
      return found.name === undefined && !line.endsWith(':') && isMove() ? undefined : found
    const next = behind.find((one) => one.trim() !== '') ?? ''
    const bare = line.replace(/\s*(?:[x×]\s*\d|\btwice)\s*$/i, '')
    const isShort = bare.split(' ').length <= 4 && !/\d/.test(bare) && !/[.,;]/.test(bare)
    const isOver = countsAt(withoutBullet(next)) !== undefined && countsAt(line) === undefined
    if (
      !isShort ||
      !isOver ||
      isFirst ||
      isMove() ||
      headerIn(line, FAMILIES) ||
      layerBefore(line).layer
    )
      return undefined
    return (
      headingIn(`${bare}: ${line.slice(bare.length)}`) ?? {
        name: undefined,
        title: bare,
        counts: undefined,
        times: timesIn(line),
      }
    )
  }

  /** A line that is written as the sheet has it. */
  #asSheet(line: string): LineKind | undefined {
    const [, first = ''] = /^([a-z]+)(?=\s)/.exec(line) ?? []
    const phrase = this.#written.phrases.at(-1)
    const isFine = (sheet: string) => readSheet(sheet, this.#vocabulary).messages.length === 0
    if (PHRASE_WORDS.includes(first as PhraseWord) && phrase && !SEVERAL_WORDS.test(line)) {
      const sheet = `sway 2\nphrase A ${phrase.counts ?? 16}\n  ${line}`
      if (!isFine(sheet)) return undefined
      const [read] = readSheet(sheet, this.#vocabulary).combination.phrases
      phrase.verbatim.push(line)
      phrase.reach = Math.max(
        phrase.reach,
        ...(read ? [...read.events, ...(read.remarks ?? [])] : []).map(reachOf),
      )
      this.#written.said.push(line)
      return 'danced'
    }
    if (
      !isHeaderWord(first) ||
      first === 'order' ||
      phrase ||
      !isFine(`sway 2\n${line}\nphrase A 8`)
    )
      return undefined
    if (first === 'title') return this.#written.setTitle(line.slice('title'.length).trim())
    return this.#written.setHeader([line], '')
  }

  #isDanced(line: string): boolean {
    const { layer, rest } = layerBefore(line)
    if (layer !== undefined) return true
    const counts = countsAt(rest)
    if (counts && counts.rest !== '') return true
    const place = { layer: undefined, lead: this.#written.lead, vocabulary: this.#vocabulary }
    // A title may name a move; what is danced without counts stands under something that has some, or says how long.
    const isBegun = this.#written.phrases.length > 0 || this.#written.title !== undefined
    return (
      isBegun &&
      thingsIn(withoutLength(line).text).some((one) => {
        const meant = meantBy(one, place)
        return meant !== undefined && (!meant.isUnsure || meant.meanings.length === 1)
      })
    )
  }

  #danced(line: string): void {
    const before = layerBefore(line)
    const phrase = this.#written.phrase()
    let counted = this.#pieces.length
    for (const piece of piecesOf(countsFirst(before.rest))) {
      // `hips: 1-4 …` as well as `1-4 hips: …`.
      const counts = countsAt(piece)
      const inner = layerBefore(counts ? counts.rest : piece)
      this.#pieceAt(phrase, inner.rest, counts, inner.layer ?? before.layer, counted === 0)
      counted++
    }
  }

  #row({ cells }: TableRow, wanted: LineKind | undefined): LineKind {
    const of = (role: Role) => cells.filter((cell) => cell.role === role && cell.text.trim() !== '')
    const [name] = of('phrase')
    if (
      name &&
      this.#written.phrases.at(-1)?.title !== name.text &&
      this.#written.phrases.at(-1)?.name !== name.text
    ) {
      const heading = headingIn(name.text) ?? {
        name: undefined,
        title: name.text,
        counts: undefined,
        times: 1,
      }
      const known = this.#written.phrases.some((phrase) => phrase.name === heading.name)
      if (!known) this.#written.begin(heading)
    }
    const phrase = this.#written.phrase()
    const [count] = of('count')
    const counts = count && countsAt(count.text.trim())
    if (counts) phrase.last = counts
    if (wanted === 'note')
      return this.#written.note(
        cells
          .map(({ text }) => text)
          .filter(Boolean)
          .join(', '),
      )
    for (const cell of cells) {
      if (cell.text.trim() === '' || !cell.layer) continue
      const own = countsAt(cell.text.trim())
      this.#pieceAt(
        phrase,
        own?.rest ? own.rest : cell.text.trim(),
        own?.rest ? own : (counts ?? { ...phrase.last, isLead: false, rest: '' }),
        cell.layer,
        false,
      )
    }
    for (const cell of of('say'))
      this.#written.place(phrase, {
        line: 'say',
        at: phrase.last.at[0] ?? 0,
        text: quoted(cell.text),
      })
    for (const cell of of('note'))
      this.#written.place(phrase, {
        line: 'note',
        at: phrase.last.at[0] ?? 0,
        text: quoted(cell.text),
      })
    return cells.some(({ layer, text }) => layer && text.trim()) ? 'danced' : 'note'
  }

  #pieceAt(
    phrase: PhraseDraft,
    typed: string,
    counts: CountsRead | undefined,
    layer: Layer | undefined,
    isFirst: boolean,
  ): void {
    const { bare, notes, cues, optional } = asidesIn(typed)
    const { text, ticks, times } = withoutLength(bare)
    const before = phrase.last
    const isBeside =
      /^(?:with|while|w\/|at the same time|same time|meanwhile|over (?:this|that|it)|plus)\b[\s,:]*/i.exec(
        text,
      )?.[0] ?? ''
    const actions = this.#actions(text.slice(isBeside.length), layer, counts)
    const own = timesOf(actions, counts, ticks, times, this.#vocabulary)
    const isPlace = actions.every(({ meaning }) => isHeld(meaning, this.#vocabulary))
    if (counts && layer === undefined && this.#beginsAnew(phrase, counts, actions)) {
      this.#pieces.splice(this.#pieces.length - actions.length)
      this.#written.beginUnsaid()
      this.#pieceAt(this.#written.phrase(), typed, counts, layer, isFirst)
      return
    }
    const when =
      counts ??
      whenGoesOn(phrase, own, {
        isBeside: isBeside !== '' || (layer !== undefined && !isFirst),
        isCounted: this.#isCounted(),
        isPlace,
      })
    const isEarly = counts?.isLead === true && phrase.placed.every(({ isEarly: early }) => early)
    phrase.last = actions.length === 0 && !counts ? before : { at: when.at, end: when.end }
    const at = when.at[0] ?? 0
    // Words alone belong to what was danced last.
    const wordsAt =
      actions.length === 0 && !counts
        ? Math.max(
            0,
            (phrase.last.end ?? at + 1) - 1 - (((phrase.last.end ?? at + 1) - 1) % TICKS_PER_COUNT),
          )
        : at
    for (const [on, text] of [
      ...cues.map((cue) => ['say', cue] as const),
      ...notes.map((note) => ['note', note] as const),
    ])
      this.#written.place(phrase, { line: on, at: wordsAt, text: quoted(text), isEarly })
    const groups = new Map<Layer, Action[]>()
    for (const action of actions) {
      const on = action.meaning?.layer
      if (on) groups.set(on, [...(groups.get(on) ?? []), action])
      else
        this.#written.place(phrase, { line: 'note', at, text: quoted(action.piece.typed), isEarly })
    }
    for (const [on, own] of groups)
      for (const { action, at, length } of spread(own, when, this.#vocabulary))
        this.#written.place(phrase, {
          line: on,
          at,
          length,
          text: action.meaning?.text ?? '',
          isEarly,
          optional,
        })
    const end = when.end ?? (when.at.at(-1) ?? 0) + TICKS_PER_COUNT
    if (isBeside === '') phrase.next = Math.max(end, counts ? end : phrase.next)
  }

  /** Whether counts begin at 1 again on a layer that has been danced for some: then it is the next phrase. */
  #beginsAnew(
    phrase: PhraseDraft,
    { at, isLead }: CountsRead,
    actions: readonly Action[],
  ): boolean {
    const on = actions[0]?.meaning?.layer
    const own = phrase.placed.filter(({ line, isEarly }) => line === on && !isEarly)
    const isOver = own.some(
      (one) => one.at >= 3 * TICKS_PER_COUNT || (one.length ?? 0) >= 4 * TICKS_PER_COUNT,
    )
    return !isLead && at[0] === 0 && isOver && own.some((one) => one.at === 0)
  }

  /** Whether the page writes counts at all. */
  #isCounted(): boolean {
    return /^\s*(?:[-*•–]\s*)?(?:[a-z]+\s*:?\s*)?\d{1,2}\s*(?:[-–:).&,]|\s\d)/im.test(this.#page)
  }

  /** What a text says is danced, as it is chosen. */
  #actions(
    text: string,
    layer: Layer | undefined,
    counts: CountsRead | undefined,
  ): readonly Action[] {
    const place = { layer, lead: this.#written.lead, vocabulary: this.#vocabulary }
    return actionsIn(text, counts, place).map(({ typed, meant }): Action => {
      const id = `${this.#lines.length + 1}.${this.#pieces.length}`
      const meanings = meant?.meanings ?? []
      const wanted = this.#wish.chosen?.[id]
      const chosen = meanings.length === 0 ? -1 : Math.min(wanted ?? 0, meanings.length - 1)
      const piece: Piece = { id, typed, meanings, chosen, isUnsure: meant?.isUnsure ?? true }
      this.#pieces.push(piece)
      return { piece, layer, meaning: meanings[chosen] }
    })
  }
}

const reachOf = ({
  at,
  length,
}: {
  readonly at: Tick
  readonly length?: Tick | undefined
}): number => at + (length ?? slotAt(at))
