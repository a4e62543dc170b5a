import { LAYERS, type Layer } from '../body/layers'
import { ArmPlace } from '../body/places'
import type { Event } from '../combination/combination'
import type { EventForm } from '../combination/forms'
import { mirrorWhat } from '../combination/mirror'
import { armPartIn } from '../entry/armPartIn'
import { directionIn } from '../entry/directions'
import { dictionaryOf, nearestIn, squashed } from '../entry/names'
import { type FormSaid, OPTION_WORDS, type Options, readOptions } from '../entry/options'
import type { Finished, Read } from '../entry/read'
import { type EntryPlace, EntryProblem, Reader, sideIn } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import type { Move } from '../moves/move'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { ALL_ENTRIES, entryOf } from '../what/entries'
import { canBeHeld, kindOf, type What } from '../what/kinds'
import { readWhen, type When } from './when'

/** An event before it has an id. One of the feet whose foot was left out is `open` until the weight is known. */
export interface WrittenEvent {
  readonly event: Omit<Event, 'id'>
  readonly open: boolean
}

/**
 * Reads one entry of a layer line: `[~] WHEN WHAT [SIDE] [options] [!keep]`.
 * @throws EntryProblem that says which word is wrong and what was expected.
 */
export function readEntry(text: string, place: EntryPlace): readonly WrittenEvent[] {
  let tokens = tokensIn(text.replace(/^~/, ' '))
  const optional = text.startsWith('~')
  const unclosed = tokens.find(({ open }) => open)
  if (unclosed) throw new EntryProblem('This quote is never closed: write " at its end.', unclosed)
  tokens = withWhenJoined(tokens)
  const each = place.layer === 'arms' ? eachArm(tokens) : []
  if (each.length > 1) return each.flatMap((own) => readOne(own, place, optional, text))
  return readOne(tokens, place, optional, text)
}

/**
 * Reads free counts: `WHEN ["what to do"]`, and what may stand behind any entry.
 * @throws EntryProblem that says which word is wrong and what was expected
 */
export function readFree(text: string, place: EntryPlace): readonly WrittenEvent[] {
  const [when, said, ...more] = withWhenJoined(tokensIn(text.replace(/^~/, ' ')))
  if (!when) throw new EntryProblem('Write which counts are free: free 5-8 "play".', WHOLE)
  const word = (of: string): Token => ({ ...when, text: of, quoted: false, open: false })
  const words = said?.quoted ? [word('as'), said, ...more] : said ? [said, ...more] : []
  return readOne([when, word('free'), ...words], place, text.startsWith('~'), text)
}

const WHOLE = { at: 0, end: 1 }

/** An entry of one thing that is danced. */
function readOne(
  tokens: readonly Token[],
  place: EntryPlace,
  optional: boolean,
  text: string,
): readonly WrittenEvent[] {
  const whole = { at: 0, end: text.length }
  const reader = new Reader(tokens)
  const times = readWhen(reader.need('a count'), place)
  const read = readWhat(reader, place)
  const options = readOptions(reader, place, read.move, BEGINS)
  if (options.alone && read.what.kind !== 'move')
    throw new EntryProblem('Only a move of the arms is danced by one alone.', whole)
  const done = entryOf(read.what).finish(read, options, place)
  if (options.either && kindOf(done.what).side(done.what) === undefined)
    throw new EntryProblem('This has no side: leave “either” out.', whole)
  const until = options.until && readUntil(options.until, done.what, times, place)
  const isShared = options.share !== undefined || done.what.kind === 'share'
  if (isShared && times.some(({ single }) => single))
    throw new EntryProblem('Write the counts that share the turn: 1-8 … share 270.', whole)
  return times.flatMap((when) => [
    ...placed(when, done, { ...options, held: until }, place, read.move, optional),
    ...sharedIn(when, options.share),
  ])
}

/**
 * The tokens of each arm's own entry, where one of them has options or a move of its own: `R second via
 * front, L low as "on the hem"`. Two that only go to places are one entry; a way at the very end is
 * both arms', unless the other one has its own.
 */
function eachArm(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const [when, ...rest] = tokens
  if (!when) return []
  const parts: Token[][] = [[]]
  let inBrackets = false
  for (const [i, token] of rest.entries()) {
    if (!token.quoted && token.text.startsWith('(')) inBrackets = true
    const isBorder =
      token.text === ',' && !token.quoted && !inBrackets && sideIn(rest[i + 1]) !== undefined
    if (!token.quoted && token.text.endsWith(')')) inBrackets = false
    if (isBorder) parts.push([])
    else parts.at(-1)?.push(token)
  }
  const isPlain = (part: readonly Token[]) => {
    const found = sideIn(part[0]) && armPartIn((word) => part[1 + word])
    return found !== undefined && part.length === 1 + found.words
  }
  if (parts.length < 2 || !parts.every((part) => sideIn(part[0]))) return []
  if (parts.slice(0, -1).every(isPlain) && startsWithPlace(parts.at(-1) ?? [])) return []
  const last = parts.at(-1) ?? []
  const via = last.findIndex(({ text, quoted }) => text === 'via' && !quoted)
  const shared = via >= 0 && via === last.length - 2 ? last.slice(via) : []
  return parts.map((part) => [
    when,
    ...part,
    ...(part !== last && !part.some(({ text, quoted }) => text === 'via' && !quoted) ? shared : []),
  ])
}

const startsWithPlace = (part: readonly Token[]): boolean =>
  armPartIn((word) => part[1 + word]) !== undefined

/**
 * The end of the count a place is held to.
 * @throws EntryProblem where it is none, comes too soon, or is asked of what holds nothing
 */
function readUntil(token: Token, what: What, times: readonly When[], place: EntryPlace): Tick {
  const [when, ...more] = readWhen(token, place)
  if (!when || more.length > 0 || !when.single)
    throw new EntryProblem('Write the one count it is held to: until 3.', token)
  if (!canBeHeld(what))
    throw new EntryProblem('Only a place, a look or a height is held until a count.', token)
  const end = tick(when.at + when.length)
  if (times.some(({ at }) => at >= end))
    throw new EntryProblem('It is held to a count before it begins.', token)
  return end
}

/** The turn that the steps of an entry share, as an entry of its own. */
const sharedIn = (when: When, degrees: number | undefined): readonly WrittenEvent[] =>
  degrees === undefined
    ? []
    : [
        {
          open: false,
          event: {
            layer: 'feet',
            at: tick(when.at),
            length: tick(when.length),
            what: { kind: 'share', degrees },
          },
        },
      ]

/** `2, 4, 6` is one WHEN, however it is spaced. */
function withWhenJoined(tokens: readonly Token[]): readonly Token[] {
  let until = 1
  while (tokens[until]?.text === ',' && /^[\d<]/.test(tokens[until + 1]?.text ?? '')) until += 2
  const [first] = tokens
  const last = tokens[until - 1]
  if (!first || !last || until === 1) return tokens
  const text = tokens
    .slice(0, until)
    .map((token) => token.text)
    .join('')
  return [{ ...first, text, end: last.end }, ...tokens.slice(until)]
}

/** What is danced, by the kind whose words these are. */
function readWhat(reader: Reader, place: EntryPlace): Read<What> {
  const first = reader.peek() ?? reader.need(`what the ${place.layer} do`)
  for (const kind of ALL_ENTRIES) {
    const read = kind.layers.includes(place.layer) ? kind.read(reader, place) : undefined
    if (read) return read
  }
  // Where a side was put in front the word behind it is what counts.
  const hasSide = (sideIn(first) ?? first.text === 'both') && reader.peek(1)
  if (hasSide) reader.take()
  throw unknownWord(reader, place, hasSide ? ArmPlace.options : [])
}

/** Whether a word behind the first may belong to a name: no side, no option, nothing in quotes. */
const mayBeOfName = (token: Token | undefined): boolean =>
  token !== undefined &&
  !token.quoted &&
  token.text !== ',' &&
  !sideIn(token) &&
  !OPTION_WORDS.includes(token.text) &&
  !directionIn(token.text)

const EXPECTED: Readonly<Record<Layer, string>> = {
  feet: 'a step such as “step R side”, or a figure',
  legs: '“R in”, “both out”, “R home”',
  hips: 'a hip move, or “at R”',
  torso: 'a move of the torso, or “at R”',
  arms: '“both low”, “R high-v, L hips”, or a move of the arms',
  head: '“look L”, or a move of the head',
}
/** Words an entry of any layer may begin with. */
const BEGINS = ALL_ENTRIES.flatMap(({ words }) => words)

const ownWords = (layer: Layer): readonly string[] =>
  ALL_ENTRIES.flatMap(({ layers, words }) => (layers.includes(layer) ? words : []))

/** What is wrong with the word a reader stands at, and what was meant by it or by it and the next ones. */
function unknownWord(
  reader: Reader,
  { layer, vocabulary }: EntryPlace,
  places: readonly string[] = [],
): EntryProblem {
  const first = reader.peek()
  if (!first) throw new Error('there is no word')
  const { longest } = dictionaryOf(vocabulary, layer)
  const { text } = first
  if (text.startsWith('~') && text.length > 1)
    return new EntryProblem('Write “~” before the count: ~3 …', first)
  if (layer === 'feet' && text === 'turn')
    return new EntryProblem(
      'A turn stands behind a step: step R side turn 90. To turn alone, write pivot 90.',
      first,
    )
  const others = LAYERS.filter((one) => one !== layer).map(
    (one) => [one, dictionaryOf(vocabulary, one)] as const,
  )
  // The longest run of words that is a name elsewhere, or comes near one, is what was meant.
  for (
    let count = Math.max(longest, ...others.map(([, one]) => one.longest));
    count >= 1;
    count--
  ) {
    const tokens = Array.from({ length: count }, (_, i) => reader.peek(i))
    const last = tokens.at(-1)
    if (!last || tokens.some((token, i) => i > 0 && !mayBeOfName(token))) continue
    const words = tokens.map((token) => token?.text ?? '').join(' ')
    const whole = { at: first.at, end: last.end }
    for (const [one, { ids }] of others) {
      const id = ids.get(squashed(words))
      if (id)
        return new EntryProblem(
          `“${words}” belongs to the ${one} line, not to the ${layer}${id === words ? '' : `: there it is ${id}`}.`,
          whole,
        )
    }
    const here = count === 1 ? [...places, ...ownWords(layer)] : places
    const near = nearestIn(dictionaryOf(vocabulary, layer), words, here)
    if (near.length > 0)
      return new EntryProblem(
        `“${words}” is not known here. Did you mean ${near.join(', ')}?`,
        whole,
      )
    if (squashed(words).length < LEAST_ELSEWHERE) continue
    for (const [one, dictionary] of others) {
      const [there] = nearestIn(dictionary, words)
      if (there)
        return new EntryProblem(
          `“${words}” is not known here. Did you mean ${there}, on the ${one} line?`,
          whole,
        )
    }
  }
  return new EntryProblem(`“${text}” is not known here. Write ${EXPECTED[layer]}.`, first)
}

/** Shorter words come near too much to be looked for on the other lines. */
const LEAST_ELSEWHERE = 5

/** What an option may say within brackets: the rest belongs to the entry itself. */
const OF_ITS_ENTRY = [
  'as',
  'cue',
  'note',
  'words',
  'easier',
  'harder',
  'leave',
  'kept',
  'until',
  'supported',
] as const

/** @throws EntryProblem where it is nothing that is danced on this layer */
function formRead(said: FormSaid, place: EntryPlace): EventForm {
  if (!('tokens' in said)) return said
  const [first] = said.tokens
  const whole = { at: first?.at ?? 0, end: said.tokens.at(-1)?.end ?? 1 }
  const reader = new Reader(said.tokens)
  const read = readWhat(reader, place)
  const options = readOptions(reader, place, read.move, BEGINS)
  if (OF_ITS_ENTRY.some((option) => options[option] !== undefined))
    throw new EntryProblem('Within the brackets only write what is danced.', whole)
  const { what, open } = entryOf(read.what).finish(read, options, place)
  if (open) throw new EntryProblem('Write which foot it is: (step R side).', whole)
  return { what }
}

function placed(
  when: When,
  { what, open, size }: Finished<What>,
  options: Options & { readonly held?: Tick | undefined },
  place: EntryPlace,
  move: Move | undefined,
  optional: boolean,
): readonly WrittenEvent[] {
  const { layer, counts } = place
  const { held, kept, on, either, supported, rate, as, easier, harder, cue, note, words, leave } =
    options
  const event = (at: number, ticks: number | undefined, said: What): WrittenEvent => ({
    open,
    event: {
      layer,
      at: tick(at),
      ...(ticks !== undefined && { length: tick(ticks) }),
      what: said,
      ...(kept && { kept }),
      ...(optional && { optional: true as const }),
      ...(on && { on }),
      ...(either && { either }),
      ...(supported && { supported }),
      ...(held !== undefined && { held: tick(held - at) }),
      ...(size !== undefined && { size }),
      ...(rate !== undefined && { rate }),
      ...(as && { as }),
      ...(easier && { easier: easier.map((form) => formRead(form, place)) }),
      ...(harder && { harder: harder.map((form) => formRead(form, place)) }),
      ...(cue && { cue }),
      ...(note && { note }),
      ...(words && { words }),
      ...(leave && { leave }),
    },
  })
  const { every, alt } = options
  // A move knows how it repeats; a step or a place is written again each time.
  if (every === undefined || kindOf(what).repeatsItself)
    return [event(when.at, when.single ? undefined : when.length, what)]
  const own = kindOf(what).ownLength(what, move)
  const room = when.single ? Math.min(own, counts * TICKS_PER_COUNT - when.at) : when.length
  const times = Math.max(1, Math.floor(room / every))
  // A step takes what time there is; anything else fills the time until it comes again.
  const each = what.kind === 'foot' || every === own ? undefined : Math.min(every, room)
  return Array.from({ length: times }, (_, i) =>
    event(when.at + i * every, each, alt && i % 2 === 1 ? mirrorWhat(what) : what),
  )
}
