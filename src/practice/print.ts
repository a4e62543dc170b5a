import { handoutBody, handoutTitle } from '../core/handout/handout'
import { HANDOUT_STYLE, pageStyle } from '../core/handout/style'
import type { PageDance } from '../core/practice/pageDance'
import type { PageData } from '../core/practice/pageData'
import { element } from '../page/element'

/** What is printed of a page is the handout of its part, made when it is asked for. */
export function printsHandout(data: PageData, { printed }: PageDance): void {
  const { combination, part, chunks, house, made } = data
  const paper = element('div', { class: 'paper' })
  addEventListener('beforeprint', () => {
    const article = element('article', { class: 'handout' })
    // All that somebody wrote is escaped where this is made.
    article.innerHTML = handoutBody(printed, {
      part,
      phrases: chunks.map(({ id }) => id),
      look: house.dancer.look,
    })
    const title = handoutTitle(combination, part)
    paper.replaceChildren(
      element('style', {}, `${pageStyle('a4', { title, day: made })}${HANDOUT_STYLE}`),
      article,
    )
    document.body.append(paper)
  })
  addEventListener('afterprint', () => paper.remove())
}
