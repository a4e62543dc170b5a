import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** A page as it stands in somebody's notebook, the sheet that is meant by it, and what it leaves open. */
export interface NotebookPage {
  readonly name: string
  readonly page: string
  readonly sheet: string
  /** Each piece with several meanings, or that nobody is sure of: `“hip circle”: hip-circle-small cw | …`. */
  readonly open: readonly string[]
}

const FOLDER = join(import.meta.dirname, 'notebook')

/** Pages in different hands, invented; three with mistakes, four tables, two all in words. */
export const NOTEBOOK: readonly NotebookPage[] = readdirSync(FOLDER)
  .sort()
  .map((name) => {
    const [page = '', meant = ''] = readFileSync(join(FOLDER, name), 'utf8').split(/^====\n/m)
    const [sheet = '', open = ''] = meant.split(/^----\n/m)
    return { name, page, sheet, open: open.split('\n').filter(Boolean) }
  })
