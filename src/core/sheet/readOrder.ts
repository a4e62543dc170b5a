import { ANY_OPTIONS, type Combination, MOST_COUNTS, type Unread } from '../combination/combination'
import { nearest } from '../entry/names'
import { quoted, tokensIn } from '../entry/tokens'
import { TICKS_PER_COUNT } from '../time/time'
import type { DraftPhrase, Messages } from './draft'
import type { Header } from './header'
import { offsetIn, type SheetLine } from './lines'

const PASS = /^([\p{L}\p{N}-]+?)(~)?(?:\*(\d{1,3}))?(?:\[([^\]]*)\])?$/u

/** The phrases as they are danced, one after another. */
export type Order = {
  phrase: string
  mirrored: boolean
  options?: readonly string[]
  loops?: true
}[]

const optionsIn = (picked: string): readonly string[] => [
  ...new Set(
    picked
      .split(/[+,]/)
      .map((name) => name.trim())
      .filter(Boolean),
  ),
]

function unknownOption(
  name: string,
  option: string | undefined,
  phrases: readonly DraftPhrase[],
): string {
  if (option === undefined) return `Write the name of an option in the brackets: ${name}[in-place].`
  if (option === 'double')
    return `Phrase ${name} can't be danced twice in its time: something in it would fall between the smallest parts of a count, or it has an odd number of counts.`
  const own = phrases.find((phrase) => phrase.name === name)?.options ?? []
  const known = [...own.map((one) => one.name), ...ANY_OPTIONS]
  return `Phrase ${name} has no option “${option}”. Write one of ${known.join(', ')}.`
}

/** The order lines read as one; with none, every phrase once, as far as the counts go. */
export function readOrder(
  lines: readonly SheetLine[],
  phrases: readonly DraftPhrase[],
  messages: Messages,
  unread: Unread[],
  canPick: (phrase: string, option: string) => boolean,
): Order {
  const names = new Map(phrases.map((phrase) => [phrase.name, phrase.counts]))
  const order: Order = []
  let counts = 0
  /** What comes next is where the loop begins. */
  let loops = false
  for (const { body } of lines)
    for (const token of tokensIn(body.text)) {
      if (token.text === ',') continue
      if (token.text === '|' && !token.quoted) {
        if (order.length > 0 && !order.some((entry) => entry.loops)) loops = true
        else
          messages.add(
            'One “|” stands between what is danced once and what is danced again: A | B C.',
            offsetIn(body, token.at),
            offsetIn(body, token.end - 1) + 1,
          )
        continue
      }
      const [, name = '', mirrored = '', times = '1', picked] = PASS.exec(token.text) ?? []
      /** What can't be danced stays in the line as it was typed. */
      const keep = (text: string, said: string) => {
        messages.add(said, offsetIn(body, token.at), offsetIn(body, token.end - 1) + 1)
        unread.push({ line: 'order', text })
      }
      const own = names.get(name)
      if (own === undefined || token.quoted) {
        const near = nearest(token.text, [...names.keys()])
        const typed = token.quoted ? quoted(token.text) : token.text
        keep(
          typed,
          `There is no phrase “${token.text}”. ${near.length > 0 ? `Did you mean ${near.join(', ')}?` : `Write names such as ${[...names.keys()].slice(0, 3).join(', ')}, B*2 or B~.`}`,
        )
        continue
      }
      const options = picked === undefined ? [] : optionsIn(picked)
      const strange = options.find((option) => !canPick(name, option))
      if (picked !== undefined && (options.length === 0 || strange !== undefined)) {
        keep(token.text, unknownOption(name, strange, phrases))
        continue
      }
      const fit = Math.min(Number(times), Math.floor((MOST_COUNTS - counts) / own))
      for (let i = 0; i < fit; i++) {
        order.push({
          phrase: name,
          mirrored: mirrored !== '',
          ...(options.length > 0 && { options }),
          ...(loops && { loops }),
        })
        loops = false
      }
      counts += fit * own
      if (fit < Number(times))
        keep(
          `${name}${mirrored}*${Number(times) - fit}${picked === undefined ? '' : `[${picked}]`}`,
          `That makes more than ${MOST_COUNTS} counts. Dance some phrases less often.`,
        )
    }
  if (order.length > 0) return order
  let sum = 0
  const once: Order = []
  for (const { name, counts: own } of phrases) {
    sum += own
    if (sum > MOST_COUNTS) break
    once.push({ phrase: name, mirrored: false })
  }
  return once
}

/** The pickup that is written, or as long a one as the events before count 1 need. */
export function pickupFor(
  { pickup }: Header,
  phrases: readonly DraftPhrase[],
  order: Order,
  messages: Messages,
  unread: Unread[],
): Combination['pickup'] {
  const first = phrases.find(({ name }) => name === order[0]?.phrase)
  const ticks = [
    ...(first?.events ?? []).map(({ event }) => event.at),
    ...(first?.remarks ?? []).map(({ at }) => at),
  ]
  const needed = Math.ceil(-Math.min(0, ...ticks) / TICKS_PER_COUNT)
  const most = first?.counts ?? 1
  if (pickup && pickup.counts > most) {
    messages.add(
      `The first phrase has ${most} counts, so the pickup has ${most} at the most.`,
      0,
      1,
    )
    unread.push({ text: `pickup ${pickup.counts}${pickup.each ? ' each' : ''}` })
    return needed > 0 ? { counts: needed, each: pickup.each } : undefined
  }
  if (!pickup && needed === 0) return undefined
  return { counts: Math.max(needed, pickup?.counts ?? 0), each: pickup?.each ?? false }
}
