import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Bank, WordPlace } from '../core/calling/spokenWords'
import type { Combination } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { USUAL_RULES } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { pageDataOf } from '../core/practice/makePage'
import { type PageParts, practicePage } from '../core/practice/practicePage'
import { type Voice, withVoice } from '../core/practice/voice'
import { folded } from '../core/record/folded'

/** What is asked for of a page on the command line. */
export interface PageAsked {
  readonly phrases?: string | undefined
  readonly part?: string | undefined
  /** Which class of a series it is of: `2/5`. */
  readonly of?: string | undefined
  readonly sides?: string | undefined
  readonly note?: string | undefined
  readonly by?: string | undefined
  readonly made?: string | undefined
  readonly voice?: boolean | undefined
}

/** Where the script of a page is built to (scripts/sway.mjs). */
const PARTS = join('.cache', 'practice', 'page.json')

/** A practice page of a combination. @throws UserError for what it has not, or where nothing was built */
export function page(combination: Combination, asked: PageAsked): string {
  const { phrases, part, of, sides, note, by, made, voice } = asked
  const ids = (phrases?.split(',') ?? []).map((name) => {
    const found = combination.phrases.find((one) => one.name === name.trim())
    if (found) return found.id
    const names = combination.phrases.map((one) => one.name).join(', ')
    throw new UserError(`There is no phrase “${name.trim()}” in it.`, `Write --phrases ${names}.`)
  })
  const whose = combination.parts?.find(({ id, name }) => id === part || name === part)
  if (part !== undefined && !whose)
    throw new UserError(
      `Nobody is called “${part}” in it.`,
      combination.parts
        ? `Write --part ${combination.parts.map(({ name }) => name).join(' or --part ')}.`
        : 'It is for one dancer: leave --part out.',
    )
  if (sides !== undefined && sides !== 'both' && sides !== 'lead')
    throw new UserError(`“${sides}” is no choice of sides.`, 'Write --sides both or --sides lead.')
  const [n = 0, all = 0] = (of ?? '').split('/').map(Number)
  if (of !== undefined && !(/^\d{1,2}\/\d{1,2}$/.test(of) && n >= 1 && n <= all))
    throw new UserError(`“${of}” is no class of a series.`, 'Write --of 2/5.')
  if (made !== undefined && !/^\d{4}-\d\d-\d\d$/.test(made))
    throw new UserError(`“${made}” is no day.`, 'Write --made 2026-11-29.')
  if (!existsSync(PARTS))
    throw new UserError(
      'The script of the page was not built.',
      'Run npm run -s sway -- page FILE.',
    )
  const data = pageDataOf(combination, vocabulary, USUAL_RULES, {
    made: made ?? new Date().toISOString().slice(0, 10),
    by,
    note,
    part: whose?.id,
    phrases: ids,
    sides,
    ...(of !== undefined && { inSeries: { n, of: all } }),
  })
  return practicePage(
    voice ? withVoice(data, shippedVoice()) : data,
    JSON.parse(readFileSync(PARTS, 'utf8')) as PageParts,
  )
}

/** The voice that ships with the app, from its files. */
function shippedVoice(): Voice {
  const folder = join('src', 'audio', 'voice')
  const table: Readonly<Record<string, Readonly<Record<Bank, WordPlace>>>> = JSON.parse(
    readFileSync(join(folder, 'words.json'), 'utf8'),
  )
  return {
    words: new Map(Object.entries(table).map(([word, places]) => [folded(word), places])),
    files: {
      normal: readFileSync(join(folder, 'normal.ogg')),
      fast: readFileSync(join(folder, 'fast.ogg')),
    },
  }
}
