import { isHalfDegrees } from '../body/facing'
import { Layer } from '../body/layers'
import { ArmPlace, Compass, Gaze, Level, PartnerPlace } from '../body/places'
import { Side, Weight } from '../body/side'
import { MOST_PROPS, type Prop } from '../combination/carried'
import { type CountCalls, DancerLevel } from '../combination/combination'
import type { Leave } from '../combination/leaving'
import { MOST_PARTS } from '../combination/part'
import type { OwnRule } from '../combination/rules'
import type { Start } from '../combination/start'
import { armPlaceIn } from '../entry/armPlaceIn'
import { directionIn } from '../entry/directions'
import { nearest, squashed } from '../entry/names'
import { leaveIn } from '../entry/options'
import { EntryProblem, hint, sideIn } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import { FAMILIES, Family, OwnMove } from '../moves/move'
import { Tempo } from '../time/tempo'
import { readCountCalls } from './countCalls'
import type { HeaderWord } from './lines'
import { readPartLine, type TypedPart } from './partLine'
import { readCarry } from './propLine'

/** What the header lines of a sheet say, as far as they have been read. */
export interface Header {
  title?: string
  families?: Family[]
  tempo?: number
  teachTempo?: number
  lead?: Side
  /** Each start line as it was written: what it means hangs on the lead. */
  start?: string[]
  parts?: TypedPart[]
  carried?: Prop[]
  swapRoles?: true
  pickup?: { counts: number; each: boolean }
  level?: DancerLevel
  counts?: number
  rest?: number
  keepTurns?: true
  once?: true
  call?: CountCalls
  song?: string
  by?: string
  tags?: string[]
  variantOf?: string
  leave?: Leave[]
  moves?: OwnMove[]
  rules?: OwnRule[]
}

type Where = Pick<Token, 'at' | 'end'>
const whole = (text: string): Where => ({ at: 0, end: Math.max(1, text.length) })

function oneOf<T extends string>(
  token: Token,
  options: readonly T[],
  what: string,
  fold = (text: string) => text.toLowerCase(),
): T {
  const found = options.find((option) => fold(option) === fold(token.text))
  if (found) return found
  const near = nearest(token.text, options)
  throw new EntryProblem(
    `“${token.text}” is no ${what}. ${near.length > 0 ? `Did you mean ${near.join(', ')}?` : `Write ${options.slice(0, 9).join(', ')}.`}`,
    token,
  )
}

/** A family that is known, or an own word for one; what comes near a known one is taken for a slip. */
function familyOf(token: Token): Family {
  const own = Family.safeParse(token.text.toLowerCase())
  return own.success && !token.quoted && nearest(token.text, FAMILIES).length === 0
    ? own.data
    : oneOf(token, FAMILIES, 'family')
}

const need = (token: Token | undefined, text: string, expected: string): Token => {
  if (token) return token
  throw new EntryProblem(`Something is missing here: ${expected}.`, whole(text))
}

function number(token: Token | undefined, text: string, low: number, high: number, what: string) {
  const value = Number(token?.text)
  if (!Number.isInteger(value) || value < low || value > high)
    throw new EntryProblem(
      `${what} is a whole number from ${low} to ${high}.`,
      token ?? whole(text),
    )
  return value
}

/** A facing: degrees, whole or half. */
function halfDegrees(token: Token): number {
  const value = Number(token.text)
  if (!isHalfDegrees(value) || Math.abs(value) > 3600)
    throw new EntryProblem('A facing is degrees, whole or half, from -3600 to 3600.', token)
  return value
}

/** The rest of a line as it stands, or what is in its quotes. */
function lineText(text: string): string {
  const [first, ...more] = tokensIn(text)
  if (text.startsWith('"') && first?.quoted && more.length === 0) return first.text
  return text
}

/** Takes what can't be read in a line of which the rest was read: what is wrong, and what stays as typed. */
export type KeepPart = (problem: EntryProblem, typed: string) => void

/** The parts of a line between its commas; empty ones left out. */
function partsIn(text: string): readonly (readonly Token[])[] {
  const parts: Token[][] = [[]]
  for (const token of tokensIn(text)) {
    if (token.text === ',' && !token.quoted) parts.push([])
    else parts.at(-1)?.push(token)
  }
  return parts.filter((part) => part.length > 0)
}

/** Does something with a part of a line; where that can't be read, only it is lost. */
function eachPart(
  text: string,
  keep: KeepPart,
  read: (tokens: readonly [Token, ...Token[]]) => void,
): void {
  for (const part of partsIn(text)) {
    const [first, ...more] = part
    if (!first) continue
    try {
      read([first, ...more])
    } catch (problem) {
      if (!(problem instanceof EntryProblem)) throw problem
      keep(problem, text.slice(first.at, part.at(-1)?.end))
    }
  }
}

/**
 * Reads one header line into what is known so far; of a line of several parts one that can't be
 * read is kept alone.
 * @throws EntryProblem that says what is wrong with it.
 */
export function readHeaderInto(
  header: Header,
  word: HeaderWord,
  text: string,
  keep: KeepPart,
): void {
  const tokens = tokensIn(text)
  const [first, second] = tokens
  switch (word) {
    case 'title':
      header.title = lineText(text)
      return
    case 'song':
    case 'by': {
      const said = lineText(text)
      if (said) header[word] = said
      return
    }
    case 'family': {
      const families = [...(header.families ?? [])]
      eachPart(text, keep, (tokens) => {
        for (const token of tokens) families.push(familyOf(token))
      })
      header.families = [...new Set(families)]
      return
    }
    case 'tempo': {
      header.tempo = Tempo.parse(number(first, text, 40, 220, 'A tempo'))
      const [said, value] = tokens.slice(1).filter((token) => token.text !== ',')
      if (!said) return
      // What stays as typed is the whole line: the rest of it alone might be another tempo.
      try {
        if (said.text !== 'teach') throw new EntryProblem('Write “tempo 96, teach 64”.', said)
        header.teachTempo = number(value, text, 40, 220, 'A teaching tempo')
      } catch (problem) {
        if (!(problem instanceof EntryProblem)) throw problem
        keep(problem, text)
      }
      return
    }
    case 'lead':
      header.lead = Side.parse(
        oneOf(
          need(first, text, 'R or L'),
          Side.options,
          'side',
          (side) => side[0]?.toUpperCase() ?? '',
        ),
      )
      return
    case 'start':
      // Read when the lead is known, since the usual stance hangs on it.
      header.start = [...(header.start ?? []), text]
      return
    case 'part': {
      const typed = readPartLine(text)
      const known = header.parts ?? []
      if (known.some(({ part }) => part.id === typed.part.id))
        throw new EntryProblem(`There is a part @${typed.part.id} already.`, first ?? whole(text))
      if (known.length === MOST_PARTS)
        throw new EntryProblem(
          `There are ${MOST_PARTS} parts at the most: let several dancers dance one of them, at L 1 and R 1.`,
          first ?? whole(text),
        )
      header.parts = [...known, typed]
      return
    }
    case 'carry': {
      const prop = readCarry(text)
      const known = header.carried ?? []
      if (known.some(({ id }) => id === prop.id))
        throw new EntryProblem(
          `There is a ${prop.id} already. Give this one a word of its own: carry ${prop.kind} ${prop.kind}-2 "Name".`,
          first ?? whole(text),
        )
      if (known.length === MOST_PROPS)
        throw new EntryProblem(
          `${MOST_PROPS} things are the most that are carried.`,
          first ?? whole(text),
        )
      header.carried = [...known, prop]
      return
    }
    case 'swap':
      if (first?.text !== 'roles')
        throw new EntryProblem('The only thing to swap here is “swap roles”.', first ?? whole(text))
      header.swapRoles = true
      return
    case 'pickup': {
      header.pickup = {
        counts: number(first, text, 1, 16, 'A pickup'),
        each: second?.text === 'each',
      }
      if (second && second.text !== 'each')
        keep(
          new EntryProblem('Write “pickup 2”, or “pickup 2 each” for every round.', second),
          text,
        )
      return
    }
    case 'level':
      header.level = oneOf(
        need(first, text, DancerLevel.options.join(', ')),
        DancerLevel.options,
        'level',
      )
      return
    case 'counts':
      header.counts = number(first, text, 1, 16, 'A phrase’s counts')
      return
    case 'rest':
      header.rest = number(first, text, 1, 64, 'A rest')
      return
    case 'keep':
      if (first?.text !== 'turns')
        throw new EntryProblem('The only thing to keep here is “keep turns”.', first ?? whole(text))
      header.keepTurns = true
      return
    case 'once':
      if (first) throw new EntryProblem('“once” stands alone: a piece that is danced once.', first)
      header.once = true
      return
    case 'call':
      header.call = readCountCalls(text)
      return
    case 'tags': {
      const tags = tagsIn(text, tokens)
      if (tags.length > 0) header.tags = tags
      return
    }
    case 'variant':
      header.variantOf = need(first, text, 'the id of a combination, in quotes').text
      return
    case 'leave': {
      const rest = [...tokens]
      const left = leaveIn({ need: (expected) => need(rest.shift(), text, expected) })
      header.leave = [...(header.leave ?? []), left]
      return
    }
    case 'rule':
      eachPart(text, keep, (words) => {
        header.rules = [...(header.rules ?? []), readRule(words, text)]
      })
      return
    case 'move':
      header.moves = [...(header.moves ?? []), readOwnMove(text, tokens)]
      return
    case 'order':
      throw new Error('the order is read when the phrases are known')
  }
}

/** Tags are parted by commas; one in quotes may hold anything. */
function tagsIn(text: string, tokens: readonly Token[]): string[] {
  const tags: string[] = []
  let begin: number | undefined
  let end = 0
  let said: string | undefined
  const close = () => {
    const tag = said ?? (begin === undefined ? '' : text.slice(begin, end).trim())
    if (tag) tags.push(tag)
    begin = undefined
    said = undefined
  }
  for (const token of tokens) {
    if (token.text === ',' && !token.quoted) close()
    else if (token.quoted && begin === undefined) {
      said = token.text
      begin = token.at
    } else {
      begin ??= token.at
      if (said !== undefined && !token.quoted) said = undefined
      end = token.end
    }
  }
  close()
  return tags
}

const OWN_KEYS = [
  'counts',
  'sided',
  'claims',
  'to',
  'demand',
  'from',
  'fastest',
  'needs',
  'risk',
  'easier',
  'harder',
  'cue',
  'aka',
  'families',
  'pattern',
  'motion',
  'feel',
  'care',
]

const OWN_LISTS: ReadonlySet<string> = new Set(['claims', 'families', 'needs', 'risk', 'aka'])
const OWN_NUMBERS: ReadonlySet<string> = new Set(['counts', 'demand', 'fastest'])

/** `turns left`, `step L forward`, `head stays`. */
function readRule([first, second, third]: readonly Token[], text: string): OwnRule {
  const wrong = () =>
    new EntryProblem(
      'Write a rule as turns left, step L forward, or head stays.',
      second ?? first ?? whole(text),
    )
  const side = sideIn(second)
  if (first?.text === 'turns' && side && !third) return { kind: 'turns', way: side }
  const direction = third && directionIn(third.text)
  if (first?.text === 'step' && side && direction) return { kind: 'step', foot: side, direction }
  const layer = Layer.safeParse(first?.text).data
  if (layer && (second?.text === 'stays' || second?.text === 'stay') && !third)
    return { kind: 'stays', layer }
  throw wrong()
}

/** What a move of a layer needs for itself where nothing is written. */
const USUAL_CLAIM: ReadonlyMap<string, string> = new Map([
  ['feet', 'feet'],
  ['hips', 'pelvis'],
  ['torso', 'ribs'],
  ['arms', 'armR'],
  ['head', 'head'],
])

/** `move melt "Slow melt" hips path counts 2 sided none claims pelvis motion "arc(R>C>L)"`. */
function readOwnMove(text: string, tokens: readonly Token[]): OwnMove {
  const [id, name, layer, kind, ...rest] = tokens
  const own: Record<string, unknown> = {
    id: need(id, text, 'move ID "Name" LAYER KIND').text,
    name: need(name, text, 'its name in quotes').text,
    layer: need(layer, text, 'its layer').text,
    kind: need(kind, text, 'its kind: place, path, accent, texture or steps').text,
    counts: 1,
    sided: 'none',
  }
  for (let i = 0; i < rest.length; i += 2) {
    const key = rest[i]
    const value = rest[i + 1]
    if (!key || key.quoted || !OWN_KEYS.includes(key.text))
      throw new EntryProblem(
        `“${key?.text}” is not known in a move. Write ${OWN_KEYS.join(', ')}, each with its value.`,
        key ?? whole(text),
      )
    const said = need(value, text, `the value of ${key.text}`).text
    own[key.text] = OWN_LISTS.has(key.text)
      ? said.split('|')
      : OWN_NUMBERS.has(key.text)
        ? Number(said)
        : said
  }
  own.claims ??= [USUAL_CLAIM.get(String(own.layer)) ?? 'pelvis']
  const read = OwnMove.safeParse(own)
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw new EntryProblem(
    issue?.message.endsWith('is missing')
      ? `This own move can't be read: ${issue.message}.`
      : `This own move can't be read: its ${String(issue?.path[0] ?? 'text')} is not right (${issue?.message}).`,
    id ?? whole(text),
  )
}

/**
 * Reads what one start line says into a stance. A part that begins with R, L or both goes on with
 * the arms; one that can't be read is kept alone.
 */
export function readStartInto(
  start: { -readonly [K in keyof Start]: Start[K] },
  text: string,
  keep: KeepPart,
): void {
  eachPart(text, keep, ([word, value, ...more]) => {
    const said = () => need(value, text, `what the ${word.text} is at the start`)
    const key = word.text.toLowerCase()
    if (ARM_WORDS.has(word.text)) {
      start.arms = startArms(start.arms, [word, ...(value ? [value] : []), ...more], text)
      return
    }
    switch (key) {
      case 'weight':
        start.weight = oneOf(said(), Weight.options, 'weight')
        return
      case 'arms':
        start.arms = startArms(start.arms, [said(), ...more], text)
        return
      case 'hips':
      case 'ribs':
        start[key] = oneOf(said(), Compass.options, 'place of the compass')
        return
      case 'level':
        start.level = oneOf(said(), Level.options, 'level of the body')
        return
      case 'gaze': {
        const first = said()
        const words = [first, ...more].map(({ text: one }) => one).join(' ')
        start.gaze = oneOf({ ...first, text: words }, Gaze.options, 'way to look', squashed)
        return
      }
      case 'partner':
        start.partner = oneOf(said(), PartnerPlace.options, 'place of a partner')
        return
      case 'facing':
        start.facing = halfDegrees(said())
        return
      default:
        throw new EntryProblem(
          `“${word.text}” is no part of the start. Write weight, arms, hips, ribs, level, gaze, partner or facing.`,
          word,
        )
    }
  })
}

const ARM_WORDS: ReadonlySet<string> = new Set(['R', 'L', 'both'])

/** `low`, `R high-v`, `R crown L low`: an arm that is not named stays as it is. */
function startArms(before: Start['arms'], tokens: readonly Token[], text: string): Start['arms'] {
  const arms = { ...before }
  for (let i = 0; i < tokens.length; ) {
    const word = tokens[i]
    const side = Side.safeParse(word?.text).data
    if (word && ARM_WORDS.has(word.text)) i++
    const place = need(tokens[i], text, 'where the arms are: arms low')
    const found = armPlaceIn(place, tokens[i + 1])
    if (!found) {
      const near = nearest(place.text, ArmPlace.options)
      throw new EntryProblem(
        `“${place.text}” is no place for an arm.${hint(near, 'Write low, second, high-v, crown, hips or another one.')}`,
        place,
      )
    }
    if (side) arms[side] = found.place
    else Object.assign(arms, { R: found.place, L: found.place })
    i += found.words
  }
  return arms
}
