import { ArmPlace, Compass, Gaze, Level } from '../body/places'
import { Side, Weight } from '../body/side'
import { DancerLevel, defaultStart, type Leave, type Start } from '../combination/combination'
import { Family, OwnMove } from '../moves/move'
import { Tempo } from '../time/tempo'
import { type HeaderWord, type Token, tokensIn } from './lines'
import { leaveIn } from './options'
import { EntryProblem } from './reader'
import { nearest, squashed } from './words'

/** What the header lines of a sheet say, as far as they have been read. */
export interface Header {
  title?: string
  families?: Family[]
  tempo?: number
  teachTempo?: number
  lead?: Side
  start?: string
  pickup?: { counts: number; each: boolean }
  level?: DancerLevel
  counts?: number
  rest?: number
  keepTurns?: true
  song?: string
  by?: string
  tags?: string[]
  variantOf?: string
  leave?: Leave[]
  moves?: OwnMove[]
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

/** The rest of a line as it stands, or what is in its quotes. */
function lineText(text: string): string {
  const [first, ...more] = tokensIn(text)
  if (text.startsWith('"') && first?.quoted && more.length === 0) return first.text
  return text
}

/**
 * Reads one header line into what is known so far.
 * @throws EntryProblem that says what is wrong with it.
 */
export function readHeaderInto(header: Header, word: HeaderWord, text: string): void {
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
    case 'family':
      header.families = [
        ...new Set(
          tokens
            .filter((token) => token.text !== ',')
            .map((token) => oneOf(token, Family.options, 'family')),
        ),
      ]
      return
    case 'tempo': {
      const tempo = number(first, text, 40, 220, 'A tempo')
      header.tempo = Tempo.parse(tempo)
      const rest = tokens.slice(1).filter((token) => token.text !== ',')
      if (rest.length > 0) {
        if (rest[0]?.text !== 'teach')
          throw new EntryProblem('Write “tempo 96, teach 64”.', rest[0] ?? whole(text))
        header.teachTempo = number(rest[1], text, 40, 220, 'A teaching tempo')
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
      header.start = text
      return
    case 'pickup': {
      if (second && second.text !== 'each')
        throw new EntryProblem('Write “pickup 2”, or “pickup 2 each” for every round.', second)
      header.pickup = { counts: number(first, text, 1, 16, 'A pickup'), each: second !== undefined }
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
  'families',
  'pattern',
  'motion',
  'feel',
  'care',
]

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
    own[key.text] =
      key.text === 'claims' || key.text === 'families'
        ? said.split('|')
        : key.text === 'counts' || key.text === 'demand'
          ? Number(said)
          : said
  }
  own.claims ??= [
    { feet: 'feet', hips: 'pelvis', torso: 'ribs', arms: 'armR', head: 'head' }[
      String(own.layer)
    ] ?? 'pelvis',
  ]
  const read = OwnMove.safeParse(own)
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw new EntryProblem(
    `This own move can't be read: its ${String(issue?.path[0] ?? 'text')} is not right (${issue?.message}).`,
    id ?? whole(text),
  )
}

/**
 * Reads the start stance.
 * @throws EntryProblem that says which part is wrong.
 */
export function readStart(text: string, lead: Side): Start {
  const usual = defaultStart(lead)
  const start: { -readonly [K in keyof Start]: Start[K] } = { ...usual }
  const tokens = tokensIn(text)
  const pieces: Token[][] = [[]]
  for (const token of tokens) {
    if (token.text === ',') pieces.push([])
    else pieces.at(-1)?.push(token)
  }
  for (const [word, value, ...more] of pieces) {
    if (!word) continue
    const said = need(value, text, `what the ${word.text} is at the start`)
    const joined = { ...said, text: [said, ...more].map((token) => token.text).join(' ') }
    switch (word.text.toLowerCase()) {
      case 'weight':
        start.weight = oneOf(said, Weight.options, 'weight')
        break
      case 'arms':
        start.arms = startArms([said, ...more], text)
        break
      case 'hips':
      case 'ribs':
        start[word.text.toLowerCase() as 'hips'] = oneOf(
          said,
          Compass.options,
          'place of the compass',
        )
        break
      case 'level':
        start.level = oneOf(said, Level.options, 'level of the body')
        break
      case 'gaze':
        start.gaze = oneOf(joined, Gaze.options, 'way to look', squashed)
        break
      case 'facing':
        start.facing = number(said, text, -3600, 3600, 'A facing')
        break
      default:
        throw new EntryProblem(
          `“${word.text}” is no part of the start. Write weight, arms, hips, ribs, level, gaze or facing.`,
          word,
        )
    }
  }
  return start
}

function startArms(tokens: readonly Token[], text: string): Start['arms'] {
  const places = tokens.filter((token) => !['R', 'L', 'both'].includes(token.text))
  const read = places.map((token) => oneOf(token, ArmPlace.options, 'place for an arm', squashed))
  const [one, two] = read
  if (!one) throw new EntryProblem('Say where the arms are: arms low.', whole(text))
  const first = tokens[0]?.text
  if (!two) return { R: one, L: one }
  return first === 'L' ? { R: two, L: one } : { R: one, L: two }
}
