import { isHalfDegrees } from '../body/facing'
import { ArmPlace, Compass, Gaze, Level, PartnerPlace } from '../body/places'
import { Side, Weight } from '../body/side'
import type { Start } from '../combination/start'
import { armPlaceIn } from '../entry/armPlaceIn'
import { nearest, squashed } from '../entry/names'
import { EntryProblem, hint } from '../entry/reader'
import type { Token } from '../entry/tokens'
import { eachPart, type KeepPart, need, oneOf } from './lineParts'

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

/** A facing: degrees, whole or half. */
function halfDegrees(token: Token): number {
  const value = Number(token.text)
  if (!isHalfDegrees(value) || Math.abs(value) > 3600)
    throw new EntryProblem('A facing is degrees, whole or half, from -3600 to 3600.', token)
  return value
}
