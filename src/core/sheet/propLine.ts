import type { Side } from '../body/side'
import {
  ActId,
  type Carried,
  Drape,
  FEATURES_OF,
  type Feature,
  type OnProp,
  type Prop,
  type PropAct,
  PropGrip,
  PropKind,
  Prop as PropSchema,
  ReadyWord,
  USUAL_PROP,
} from '../combination/carried'
import { nearest } from '../entry/names'
import { EntryProblem, hint, Reader, sideIn } from '../entry/reader'
import { quoted, type Token, tokensIn } from '../entry/tokens'
import { labelIn, labelOfSpan, type Numbering, tick } from '../time/time'
import { readSaid, saidTexts } from './said'
import { readWhen } from './when'

const EXAMPLE = 'carry veil "Silk" 2.5 x 1.1 behind, R top-R pinch, L top-L pinch, ready hair-in'
const ACT_EXAMPLE = '1-2 over to front; 8 let-go L'

const whole = (text: string) => ({ at: 0, end: Math.max(1, text.length) })

/**
 * Reads `@1 veil "Silk" 2.5 x 1.1 behind, R top-R pinch, L top-L pinch, ready hair-in, keep hand`.
 * Whose it is, is looked at when the parts are known.
 * @throws EntryProblem
 */
export function readCarry(text: string): Prop {
  const [head = [], ...more] = inCommas(text)
  const words = [...head]
  const mark = words[0]?.text.startsWith('@') ? words.shift() : undefined
  const kindWord = words.shift()
  const kind = PropKind.safeParse(kindWord?.text).data
  if (!kind || !kindWord)
    throw new EntryProblem(
      `Write what it is: ${PropKind.options.join(', ')}. So: ${EXAMPLE}.`,
      kindWord ?? whole(text),
    )
  const own = words[0] && !words[0].quoted && /^[\p{L}][\p{L}\p{N}-]*$/u.test(words[0].text)
  const isId = own && !isDrape(words[0])
  const id = isId ? words.shift() : undefined
  const name = words[0]?.quoted ? words.shift() : undefined
  const size = sizeIn(words, kind)
  const drape = drapeIn(words, kind)
  const over = words[0]
  if (over)
    throw new EntryProblem(`“${over.text}” is not known here. Write it as ${EXAMPLE}.`, over)
  const { start, keepHand } = heldIn(more, { kind, drape })
  const read = PropSchema.safeParse({
    id: id?.text ?? kind,
    kind,
    name: name?.text.trim() || kind,
    ...(mark && { part: mark.text.slice(1) }),
    size,
    start,
    ...(keepHand && { keepHand }),
  })
  if (!read.success) throw new EntryProblem(`Write it as ${EXAMPLE}.`, id ?? mark ?? kindWord)
  return read.data
}

function inCommas(text: string): readonly (readonly Token[])[] {
  const all: Token[][] = [[]]
  for (const token of tokensIn(text))
    if (token.text === ',' && !token.quoted) all.push([])
    else all.at(-1)?.push(token)
  return all
}

const isDrape = (token: Token | undefined): boolean => Drape.safeParse(token?.text).success

/** `2.5 x 1.1`, in metres; what is usual where it is not said. */
function sizeIn(words: Token[], kind: PropKind): Prop['size'] {
  if (!words[0] || words[0].quoted || !/^\d/.test(words[0].text)) return USUAL_PROP[kind].size
  const said: Token[] = []
  while (words[0] && /^[\d.x×]+$/.test(words[0].text)) said.push(words.shift() as Token)
  const [first] = said
  const numbers = said
    .map(({ text }) => text)
    .join(' ')
    .split(/[x×\s]+/)
    .filter(Boolean)
    .map(Number)
  const [long = Number.NaN, deep = USUAL_PROP[kind].size.deep] = numbers
  const read = PropSchema.unwrap().shape.size.safeParse({ long, deep })
  if (!read.success || numbers.length > 2)
    throw new EntryProblem(
      'Write how long and how deep it is, in metres: 2.5 x 1.1.',
      first as Token,
    )
  return read.data
}

function drapeIn(words: Token[], kind: PropKind): Drape {
  const drape = Drape.safeParse(words[0]?.text).data
  if (!drape) return USUAL_PROP[kind].start.drape
  words.shift()
  return drape
}

interface Worn {
  readonly kind: PropKind
  readonly drape: Drape
}

/** How the hands hold it, what is ready, and whether it stays in its hand. */
function heldIn(
  more: readonly (readonly Token[])[],
  { kind, drape }: Worn,
): { readonly start: Carried; readonly keepHand: boolean } {
  const hands: { R?: OnProp; L?: OnProp } = {}
  let [open, isFree, keepHand, wound] = [true, false, false, 0]
  const ready: string[] = []
  for (const said of more) {
    const words = [...said]
    const [first, second] = words
    if (!first) continue
    const side = sideIn(first)
    if (side) {
      hands[side] = onProp(words.slice(1), kind, first)
      continue
    }
    switch (first.text) {
      case 'free':
        isFree = true
        break
      case 'closed':
        open = false
        break
      case 'wound':
        wound = Number(second?.text)
        if (!Number.isInteger(wound) || wound < 0 || wound > 8)
          throw new EntryProblem('Write how many half turns it is wound: wound 1.', second ?? first)
        break
      case 'keep':
        if (second?.text !== 'hand')
          throw new EntryProblem('Write “keep hand”: it stays in the same hand.', second ?? first)
        keepHand = true
        break
      case 'ready':
        for (const word of words.slice(1)) ready.push(readyIn(word))
        break
      default:
        throw new EntryProblem(
          `“${first.text}” is not known here. Write R or L with where it is held, ready, closed, free or keep hand: ${EXAMPLE}.`,
          first,
        )
    }
  }
  const isSaid = isFree || hands.R !== undefined || hands.L !== undefined
  return {
    start: {
      hands: isSaid ? hands : USUAL_PROP[kind].start.hands,
      drape,
      open,
      wound,
      ready: [...new Set(ready)],
    },
    keepHand,
  }
}

function readyIn(word: Token): string {
  const { data } = ReadyWord.safeParse(word.text)
  if (data === undefined || word.quoted)
    throw new EntryProblem('Write what is ready as one word: hair-in, elbow-in.', word)
  return data
}

/** `top-R bottom-R split`: where a hand holds it, and how. */
function onProp(words: readonly Token[], kind: PropKind, word: Token): OnProp {
  const at: Feature[] = []
  let grip: PropGrip = kind === 'veil' ? 'pinch' : 'fist'
  for (const one of words) {
    const known = PropGrip.safeParse(one.text).data
    if (known) grip = known
    else at.push(featureIn(one, kind))
  }
  if (at.length === 0 || at.length > 2)
    throw new EntryProblem(
      `Write where the hand holds it: ${FEATURES_OF[kind].join(', ')}.`,
      words[0] ?? word,
    )
  return { at, grip }
}

function featureIn(token: Token, kind: PropKind): Feature {
  const found = FEATURES_OF[kind].find((one) => one === token.text)
  if (!found)
    throw new EntryProblem(
      `A ${kind} is not held at “${token.text}”.${hint(nearest(token.text, FEATURES_OF[kind]), `Write ${FEATURES_OF[kind].join(', ')}.`)}`,
      token,
    )
  return found
}

const onPropText = (side: Side, { at, grip }: OnProp): string => `${side} ${at.join(' ')} ${grip}`

/** A thing as its line says it. */
export function carryText({ id, kind, name, part, size, start, keepHand }: Prop): string {
  const { hands, drape, open, wound, ready } = start
  const held = (['R', 'L'] as const).flatMap((side) => {
    const on = hands[side]
    return on ? [onPropText(side, on)] : []
  })
  const isFree = held.length === 0
  return [
    [
      part && `@${part}`,
      kind,
      id !== kind && id,
      quoted(name),
      `${size.long} x ${size.deep}`,
      drape,
    ]
      .filter(Boolean)
      .join(' '),
    ...held,
    isFree && 'free',
    !open && 'closed',
    wound > 0 && `wound ${wound}`,
    ready.length > 0 && `ready ${ready.join(' ')}`,
    keepHand && 'keep hand',
  ]
    .filter(Boolean)
    .join(', ')
}

interface ActPlace extends Numbering {
  readonly carried: readonly Prop[]
}

/** Whether an entry of a prop line is a text that is only noted, not something that is done. */
export function isPropText(text: string): boolean {
  const [, second, third] = tokensIn(text)
  return second?.quoted === true || (sideIn(second) !== undefined && third?.quoted === true)
}

/** Reads `1-2 over to front`, `8 let-go L`, `5 veil ready elbow-in`: one act for each of its times. @throws EntryProblem */
export function readAct(text: string, place: ActPlace): readonly Omit<PropAct, 'id'>[] {
  const tokens = tokensIn(text)
  const unclosed = tokens.find(({ open }) => open)
  if (unclosed) throw new EntryProblem('This quote is never closed: write " at its end.', unclosed)
  const optional = text.startsWith('~')
  const reader = new Reader(
    optional
      ? tokensIn(text).map((one, i) => (i === 0 ? { ...one, text: one.text.slice(1) } : one))
      : tokens,
  )
  if (optional && reader.peek()?.text === '') reader.take()
  const times = readWhen(reader.need('a count'), place)
  const { carried } = place
  const first = reader.peek()
  if (carried.length === 0)
    throw new EntryProblem(
      `Nothing is carried. Write it above: ${EXAMPLE}. A text in quotes is only noted.`,
      first ?? whole(text),
    )
  const next = reader.peek(1)
  const named =
    first && (!isAct(first) || isAct(next))
      ? carried.find(({ id }) => id === first.text)
      : undefined
  if (named) reader.take()
  const prop = named ?? (carried.length === 1 ? carried[0] : undefined)
  const word = reader.need(`what is done with it: ${ACT_EXAMPLE}`)
  const act = ActId.safeParse(word.text).data
  if (!act)
    throw new EntryProblem(
      `“${word.text}” is nothing that is done with it.${hint(nearest(word.text, ActId.options), `Write ${ActId.options.join(', ')}.`)}`,
      word,
    )
  if (!prop)
    throw new EntryProblem(`Write which of them: ${carried.map(({ id }) => id).join(', ')}.`, word)
  const hand = sideIn(reader.peek())
  if (hand) reader.take()
  const ready =
    act === 'ready' ? readyIn(reader.need('what is got ready: ready hair-in')) : undefined
  let to: PropAct['to']
  const said = readSaid(
    reader,
    `Behind what is done stand R or L, to, cue, note, leave or !keep: ${ACT_EXAMPLE}.`,
    ({ text }) => {
      if (text !== 'to') return false
      const next = reader.need('where it leads to: to front, to top-L')
      to = Drape.safeParse(next.text).data ?? featureIn(next, prop.kind)
      return true
    },
  )
  const length = times.map(({ at, length }) => ({ at: tick(at), length: tick(length) }))
  return length.map((when) => ({
    ...when,
    prop: prop.id,
    act,
    ...(hand && { hand }),
    ...(ready && { ready }),
    ...(to && { to }),
    ...said,
    ...(optional && { optional }),
  }))
}

const isAct = (token: Token | undefined): boolean => ActId.safeParse(token?.text).success

/**
 * What is done, as its line says it.
 * @param carried all that is carried: which one is meant is said where there are several
 */
export const actText = (
  { at, length, prop, act, hand, to, ready, optional, ...said }: PropAct,
  phrase: Numbering,
  carried: readonly Prop[],
): string =>
  [
    `${optional ? '~' : ''}${labelOfSpan({ at, length }, labelIn(phrase))}`,
    carried.length > 1 && prop,
    act,
    hand,
    ready,
    to && `to ${to}`,
    ...saidTexts(said),
  ]
    .filter(Boolean)
    .join(' ')
