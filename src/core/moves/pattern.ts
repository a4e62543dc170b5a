import { Direction, FootAction, factsOf, JumpTo, Primitive, STEP_WORDS } from '../body/feet'
import { Side } from '../body/side'
import { type Tick, tick, tickOfLabel } from '../time/time'

/** One thing the feet do, and when, counted from the start of what it belongs to. */
export interface TimedAction {
  readonly at: Tick
  readonly action: FootAction
}

/**
 * Reads the steps of a footwork figure: `1 step R side; & touch L together`. A label
 * without a count (`&`) belongs to the count before it.
 * @throws Error that names the entry that cannot be read.
 */
export function readPattern(text: string): readonly TimedAction[] {
  let count = 1
  return text.split(';').map((entry) => {
    const words = entry.trim().split(/\s+/)
    const [when = '', primitive = '', ...rest] = words
    const label = /^\d/.test(when) ? when : `${count}${when}`
    count = Number.parseInt(label, 10)
    const at = tickOfLabel(label)
    if (at === undefined) throw new Error(`“${entry.trim()}” does not start with a count`)
    return { at, action: readAction(primitive, rest, entry.trim()) }
  })
}

function readAction(word: string, rest: readonly string[], entry: string): FootAction {
  const primitive = Primitive.safeParse(word).data
  if (!primitive)
    throw new Error(
      `“${word}” in “${entry}” is nothing the feet do. Write one of ${STEP_WORDS.join(', ')}`,
    )
  const action: Record<string, unknown> = { primitive }
  for (let i = 0; i < rest.length; i++) {
    const next = rest[i] ?? ''
    if (primitive === 'jump' && JumpTo.safeParse(next).success) action.jump = next
    else if (Side.safeParse(next).success) action.foot = next
    else if (Direction.safeParse(next).success) action.direction = next
    else if (next === 'turn') action.turn = Number(rest[++i])
    else if (primitive === 'pivot' && /^-?\d+([.]5)?$/.test(next)) action.turn = Number(next)
    else if (next === 'small' || next === 'large') action.size = next
    else if (next === 'ball' || next === 'heel' || next === 'flat') action.contact = next
    else if (next === 'both') action.shared = true
    else throw new Error(`“${next}” in “${entry}” is no word of the feet`)
  }
  const { direction } = factsOf(primitive)
  if (direction && !action.direction) action.direction = direction
  const read = FootAction.safeParse(action)
  if (!read.success)
    throw new Error(
      `“${entry}” can't be danced: ${read.error.issues[0]?.path.join(' ')} ${read.error.issues[0]?.message}`,
    )
  return read.data
}

/** How long a pattern's last action lasts is not written; it ends with the figure. */
export const lengthsIn = (pattern: readonly TimedAction[], end: Tick): readonly Tick[] =>
  pattern.map(({ at }, i) => tick((pattern[i + 1]?.at ?? end) - at))
