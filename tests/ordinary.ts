import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** Combinations as they are taught, fifteen a family, each a count sheet. */
export const ORDINARY: readonly string[] = ['belly', 'bollywood', 'polynesian', 'latin'].flatMap(
  sheetsIn,
)

/** Twenty more, of all families, in the words of practice: low and press, legs and trunk, hands, free counts, pictures, calls. */
export const IN_WORDS: readonly string[] = sheetsIn('words')

/** Nineteen for two, three and four dancers: unison that differs in moments, holds, places, looks, waits, voices. */
export const PIECES: readonly string[] = sheetsIn('pieces')

/** Ten with something in the hands: veil, skirt, fan, sticks, scarf; two of them for two. */
export const WITH_PROPS: readonly string[] = sheetsIn('props')

/** Combinations each with one slip, and what is said of it, written as its comment: `fault feet.loaded A5`. */
export const SLIPS: readonly { readonly sheet: string; readonly slip: string }[] = sheetsIn(
  'slips',
).map((sheet) => ({ sheet, slip: /^# (.*)$/m.exec(sheet)?.[1] ?? '' }))

/** The sheets of a file of this folder; each begins with its version. */
function sheetsIn(name: string): readonly string[] {
  const text = readFileSync(join(import.meta.dirname, 'ordinary', `${name}.txt`), 'utf8')
  return text
    .split(/^(?=sway \d)/m)
    .map((sheet) => sheet.trim())
    .filter((sheet) => sheet !== '')
}
