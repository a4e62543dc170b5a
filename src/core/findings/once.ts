import type { Combination, Leave } from '../combination/combination'
import type { Finding, FindingCode, Found } from './finding'

/** Of what one event and cause leads to only the first is said (model 8). */
const CHAINS: readonly (readonly FindingCode[])[] = [
  [
    'feet.loaded',
    'feet.loaded-touch',
    'feet.no-support',
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

/** The first three of the first chain stand apart: each slip of the weight is said. */
const WEIGHT_FAULTS = 3
const LINKS: ReadonlyMap<FindingCode, Link> = new Map(
  CHAINS.flatMap((codes, chain) =>
    codes.map((code, i): [FindingCode, Link] => [
      code,
      { chain, rank: chain === 0 && i < WEIGHT_FAULTS ? 0 : i },
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
  const said = new Set<string>()
  return found.filter((one) => {
    const link = LINKS.get(one.code)
    if (link && (first.get(causeOf(one, link)) ?? 0) < link.rank) return false
    // The weight may break on one time round only; all else is the phrase's own.
    const key = link?.chain === 0 && link.rank === 0 ? slipKey(one) : keyInPhrase(one)
    if (said.has(key)) return false
    said.add(key)
    return true
  })
}

/** The same slip on either side has the same key. */
export const slipKey = ({ code, spot, events }: Found): string =>
  [code, spot.pass, spot.at, ...events].join('|')

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
  for (const { events } of phrases)
    for (const one of events) if (one.leave) own.set(one.id, one.leave)
  return ({ code, events }) => {
    const [first] = events
    return because(first === undefined ? undefined : own.get(first), code) ?? because(leave, code)
  }
}

const because = (leave: readonly Leave[] | undefined, code: string): string | undefined =>
  leave?.find((one) => one.code === code)?.because
