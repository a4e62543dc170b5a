import type { Part } from '../combination/part'
import { Later, type Voice } from '../combination/voice'
import { EntryProblem, Reader } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import { TICKS_PER_COUNT, type Tick } from '../time/time'
import { noPart } from './whose'

const EXAMPLE = 'voice @2 of @1 +2'

/** Reads `@2 of @1 +2 mirrored`: who follows whom in a phrase, and how many counts later. @throws EntryProblem */
export function readVoice(text: string, parts: readonly Part[], known: readonly Voice[]): Voice {
  const reader = new Reader(tokensIn(text))
  const part = partNamed(reader.need(`write it as ${EXAMPLE}`), parts)
  if (reader.peek()?.text !== 'of')
    throw new EntryProblem(`Write whom she follows: ${EXAMPLE}.`, reader.peek() ?? whole(text))
  reader.take()
  const mark = reader.need(`whom she follows: ${EXAMPLE}`)
  const of = partNamed(mark, parts)
  if (of === part) throw new EntryProblem('Nobody follows herself: name another part.', mark)
  if (known.some((one) => one.part === part))
    throw new EntryProblem(`@${part} follows somebody in this phrase already.`, mark)
  for (let at: string | undefined = of; at !== undefined; ) {
    const next: Voice | undefined = known.find((one) => one.part === at)
    if (next?.of === part)
      throw new EntryProblem(`@${of} follows @${part} already: they would go round.`, mark)
    at = next?.of
  }
  const said = reader.peek()
  const by = said?.text.startsWith('+') ? laterIn(said) : (0 as Tick)
  if (said?.text.startsWith('+')) reader.take()
  const isImage = reader.peek()?.text === 'mirrored'
  if (isImage) reader.take()
  const more = reader.take()
  if (more)
    throw new EntryProblem(
      `“${more.text}” is not known here. Write how many counts later, or mirrored: ${EXAMPLE} mirrored.`,
      more,
    )
  return { part, of, by, ...(isImage && { mirrored: true as const }) }
}

const whole = (text: string) => ({ at: 0, end: Math.max(1, text.length) })

function partNamed({ text, at, end }: Token, parts: readonly Part[]): string {
  const id = text.replace(/^@/, '')
  if (!text.startsWith('@') || !parts.some((part) => part.id === id))
    throw new EntryProblem(noPart(id, parts), { at, end })
  return id
}

/** Counts later, also halves, thirds and quarters of one. @throws EntryProblem */
export function laterIn(token: Token): Tick {
  const counts = Number(token.text.replace(/^\+/, ''))
  const ticks = counts * TICKS_PER_COUNT
  const read = Later.safeParse(Math.round(ticks))
  if (!read.success || !Number.isFinite(counts) || Math.abs(ticks - Math.round(ticks)) > 0.02)
    throw new EntryProblem('Write how many counts later, up to 64: 2, 2.5.', token)
  return read.data
}

/** Ticks as counts: `2`, `2.5`, `0.333`. */
export const laterText = (ticks: Tick): string =>
  String(Math.round((ticks / TICKS_PER_COUNT) * 1000) / 1000)

/** `@2 of @1 +2 mirrored` */
export const voiceText = ({ part, of, by, mirrored }: Voice): string =>
  [`@${part} of @${of}`, by > 0 && `+${laterText(by)}`, mirrored && 'mirrored']
    .filter(Boolean)
    .join(' ')
