import type { Told } from '../core/beats/listen'
import { UserError } from '../core/errors'
import { RHYTHMS } from '../core/rhythm/rhythms'
import { MOST_PHRASE } from '../core/song/song'
import { priorOf } from '../core/song/styles'
import { FASTEST, SLOWEST } from '../core/time/tempo'
import { beatsReport, beatsText } from './beats'
import type { Output } from './output'
import { MOST_SECONDS as MOST_SOUND_SECONDS } from './wav'

/** Prints the counts of a song. */
export function counted(
  path: string,
  options: BeatsOptions,
  asJson: boolean,
  { print, say }: Output,
): number {
  const made = beatsReport(path, toldBy(options), (text) => say(`${text}\n`))
  print(`${asJson ? JSON.stringify(made) : beatsText(made)}\n`)
  return 0
}

type BeatsOptions = Partial<Record<'tempo' | 'style' | 'first' | 'phrase' | 'taps', string>>

/** What is known of a song before it is heard. */
function toldBy({ tempo, style, first, phrase, taps }: BeatsOptions): Told {
  const number = (name: string, text: string, from: number, to: number, words: string) => {
    const value = Number(text)
    if (!(value >= from && value <= to))
      throw new UserError(`--${name} is ${text}.`, `Write ${words}, ${from} to ${to}.`)
    return value
  }
  const seconds = (name: string, text: string) =>
    number(name, text, 0, MOST_SOUND_SECONDS, 'seconds')
  const prior = priorOf(style)
  if (style !== undefined && !prior)
    throw new UserError(
      `--style is ${style}, which tells no pace.`,
      `Write the id of a rhythm: ${RHYTHMS.flatMap(({ id }) => (priorOf(id) ? id : [])).join(', ')}.`,
    )
  if (phrase !== undefined && first === undefined)
    throw new UserError('--phrase alone says nothing.', 'Write --first too: where it is 1.')
  return {
    prior:
      tempo === undefined
        ? prior
        : {
            centre: number('tempo', tempo, SLOWEST, FASTEST, 'counts a minute'),
            spread: TOLD_SPREAD,
          },
    ...(taps !== undefined && { taps: taps.split(',').map((tap) => seconds('taps', tap)) }),
    ...(first !== undefined && {
      one: {
        at: seconds('first', first),
        ...(phrase !== undefined && {
          counts: number('phrase', phrase, 1, MOST_PHRASE, 'counts'),
        }),
      },
    }),
  }
}

/** A level that was told is looked for this near, in octaves. */
const TOLD_SPREAD = 0.06
