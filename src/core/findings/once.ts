import type { FootAction } from '../body/feet'
import type { Combination } from '../combination/combination'
import type { Leave } from '../combination/leaving'
import { WEIGHT_FAULTS } from '../simulate/primitives'
import { type Finding, type FindingCode, type Found, severityOf } from './finding'

/** Of what one event and cause leads to only the first is said (model 8). */
const CHAINS: readonly (readonly FindingCode[])[] = [
  [
    ...WEIGHT_FAULTS,
    'layer.clash',
    'feet.too-fast',
    'feet.wide-quick',
    'layer.no-time',
    'arms.far',
    'move.too-fast',
  ],
  ['turn.blocked', 'turn.too-fast'],
  ['hips.loaded-lift', 'move.needs'],
]

interface Link {
  readonly chain: number
  readonly rank: number
}

/** The faults of the weight stand apart in their chain: each slip is said. */
const LINKS: ReadonlyMap<FindingCode, Link> = new Map(
  CHAINS.flatMap((codes, chain) =>
    codes.map((code, i): [FindingCode, Link] => [
      code,
      { chain, rank: chain === 0 && i < WEIGHT_FAULTS.length ? 0 : i },
    ]),
  ),
)

/** Findings in the order they are danced, each cause said once. */
export function onceEach(all: readonly Found[]): readonly Found[] {
  if (all.length < 2) return all
  const found = [...all].sort((a, b) => a.spot.pass - b.spot.pass || a.spot.at - b.spot.at)
  const first = new Map<string, number>()
  const causeOf = ({ spot, events }: Found, { chain }: Link) => `${chain} ${spot.pass} ${events[0]}`
  for (const one of found) {
    const link = LINKS.get(one.code)
    if (!link) continue
    const cause = causeOf(one, link)
    first.set(cause, Math.min(first.get(cause) ?? Number.POSITIVE_INFINITY, link.rank))
  }
  const said = new Map<string, Found>()
  for (const one of found) {
    const link = LINKS.get(one.code)
    if (link && (first.get(causeOf(one, link)) ?? 0) < link.rank) continue
    const key = keyOf(one)
    const before = said.get(key)
    said.set(key, before ? withAlso(before, one) : one)
  }
  return [...said.values()]
}

/**
 * What is said once. A slip of the weight is one for its event, whatever times it slips; what can't
 * be danced stands for itself; anything else is said once a phrase for one move and one reason.
 */
function keyOf(one: Found): string {
  const { code, spot, events } = one
  if (isSlip(code)) return [code, spot.phrase, spot.at, ...events].join('|')
  if (severityOf(one) === 'fault' || events.length === 0 || code === 'load.high')
    return keyInPhrase(one)
  return [code, spot.phrase, spot.layer, reasonOf(one)].join('|')
}

/** Whether it is a slip of the weight. */
export const isSlip = (code: FindingCode): boolean => SLIPS.has(code)

const SLIPS: ReadonlySet<FindingCode> = new Set(WEIGHT_FAULTS)

/** The words of a fact, without its figures: which move, and why. */
function reasonOf(fact: Found): string {
  const { spot: _, events: __, also: ___, ...rest } = fact
  const words = Object.entries(rest).map(([name, value]) => {
    if (typeof value === 'number' || SIDES_OF.has(name)) return [name]
    if (name === 'action') return [name, actionWords(value)]
    return [name, typeof value === 'string' ? value.replace(SIDE_AT_END, '') : value]
  })
  return JSON.stringify(words)
}

/** The same to the other side is the same. */
const SIDES_OF: ReadonlySet<string> = new Set(['foot', 'hip'])
const SIDE_AT_END = / (R|L|cw|ccw)$/

/** A step without its foot. */
const actionWords = (value: unknown): unknown => {
  const { primitive, direction } = value as FootAction
  return [primitive, direction]
}

function withAlso(first: Found, { spot, events }: Found): Found {
  const isSame = spot.at === first.spot.at && (spot.time === first.spot.time || !isSlip(first.code))
  if (isSame || events.length === 0) return first
  const { at, time } = spot
  const again = { at, ...(time !== undefined && { time }), event: events[0] }
  const known = first.also ?? []
  if (known.some((one) => one.at === at && (one.time === time || !isSlip(first.code)))) return first
  return { ...first, also: [...known, again] }
}

/** All that a finding stands for, each by a key that is the same on either side. */
export function keysIn({ code, spot, events, also = [] }: Found): readonly string[] {
  const key = (at: number, time: number | undefined, event: string | undefined) =>
    [code, spot.phrase, at, isSlip(code) ? time : '', event].join('|')
  return [
    key(spot.at, spot.time, events[0]),
    ...also.map(({ at, time, event }) => key(at, time, event)),
  ]
}

/** What is said of a phrase once, however often it is danced, and once for a figure in it. */
const keyInPhrase = ({ code, spot, events }: Found): string =>
  code === 'load.high' || events.length === 0
    ? [code, spot.phrase, spot.layer, code === 'load.high' ? '' : spot.at].join('|')
    : [code, spot.phrase, ...events].join('|')

/** Why the instructor leaves a finding of a combination, where she has said so. */
export function reasonsToLeave({
  phrases,
  leave,
}: Combination): (finding: Finding) => string | undefined {
  const own = new Map<string, readonly Leave[]>()
  for (const { events, between = [], props = [] } of phrases)
    for (const one of [...events, ...between, ...props]) if (one.leave) own.set(one.id, one.leave)
  return ({ code, events, also = [] }) => {
    const ids = [events[0], ...also.map(({ event }) => event)]
    for (const id of ids) {
      const reason = id === undefined ? undefined : because(own.get(id), code)
      if (reason !== undefined) return reason
    }
    return because(leave, code)
  }
}

const because = (leave: readonly Leave[] | undefined, code: string): string | undefined =>
  leave?.find((one) => one.code === code)?.because
