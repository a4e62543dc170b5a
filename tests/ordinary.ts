import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** Combinations as they are taught, fifteen a family, each a count sheet. */
export const ORDINARY: readonly string[] = ['belly', 'bollywood', 'polynesian', 'latin'].flatMap(
  sheetsIn,
)

/** The sheets of a file of this folder; each begins with its version. */
function sheetsIn(name: string): readonly string[] {
  const text = readFileSync(join(import.meta.dirname, 'ordinary', `${name}.txt`), 'utf8')
  return text
    .split(/^(?=sway \d)/m)
    .map((sheet) => sheet.trim())
    .filter((sheet) => sheet !== '')
}
