import type { CountWords } from '../core/teaching/say'
import { element } from './element'

/** What starts on a count, in one line. */
export const wordsOf = (row: CountWords | undefined): string =>
  row ? [...row.feet, ...row.layers.map(({ text }) => text)].join('; ') || 'goes on' : ''

/** What to do on each count, the one that is danced marked; made anew only for other words. */
export class WordList {
  readonly element = element('ol', { class: 'words' })
  #shown = ''
  #lit = ''

  show(rows: readonly CountWords[], lit: string): void {
    const shown = rows.map((row) => `${row.count} ${wordsOf(row)}`).join('\n')
    if (shown !== this.#shown) {
      this.#shown = shown
      this.#lit = ''
      this.element.replaceChildren(
        ...rows.map((row) =>
          element(
            'li',
            { 'data-count': String(row.count) },
            element('b', {}, String(row.count)),
            ` ${wordsOf(row)}`,
          ),
        ),
      )
    }
    if (lit === this.#lit) return
    this.#lit = lit
    for (const row of this.element.children) {
      const isLit = row.getAttribute('data-count') === lit
      if (isLit) row.setAttribute('aria-current', 'true')
      else row.removeAttribute('aria-current')
      if (isLit) row.scrollIntoView({ block: 'nearest' })
    }
  }
}
