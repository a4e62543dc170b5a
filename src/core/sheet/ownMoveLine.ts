import { Layer } from '../body/layers'
import type { OwnRule } from '../combination/rules'
import { directionIn } from '../entry/directions'
import { EntryProblem, sideIn } from '../entry/reader'
import type { Token } from '../entry/tokens'
import { OwnMove } from '../moves/move'
import { need, whole } from './lineParts'

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
export function readRule([first, second, third]: readonly Token[], text: string): OwnRule {
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
export function readOwnMove(text: string, tokens: readonly Token[]): OwnMove {
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
