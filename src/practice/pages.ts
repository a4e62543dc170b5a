import { type Side, sideWord } from '../core/body/side'
import { type PageData, sidesOf } from '../core/practice/pageData'
import type { PracticeReturn } from '../core/practice/returned'
import { element } from '../page/element'
import { cleanOn } from './marks'

/** Minutes a chunk takes at the least. */
const MINUTES_A_CHUNK = 6

/** What stands beside the figure before it is begun. */
export function firstWords(data: PageData, staysMarked: boolean): HTMLElement {
  const { chunks, care, note, next, space, inSeries } = data
  return element(
    'div',
    { class: 'text', tabindex: '0', role: 'region', 'aria-label': 'What to do' },
    element(
      'h2',
      { tabindex: '-1' },
      chunks.length === 1 ? 'One part' : `${chunks.length} parts, one at a time`,
    ),
    inSeries &&
      element(
        'p',
        { class: 'note' },
        `Part ${inSeries.n} of ${inSeries.of}${inSeries.n > 1 ? `, comes after part ${inSeries.n - 1}` : ''}.`,
      ),
    note && element('p', { class: 'note' }, note),
    element('p', {}, `About ${chunks.length * MINUTES_A_CHUNK} minutes. ${space}`),
    ...care.map((line) => element('p', { class: 'line' }, line)),
    element(
      'p',
      { class: 'line' },
      'Warm up first. Stop where anything hurts, and ask a doctor or a physiotherapist if it goes on.',
    ),
    next && element('p', {}, `The next class is on ${next}.`),
    !staysMarked && element('p', {}, 'Marks are kept while this page is open.'),
  )
}

/** What was danced, and which side once more. */
export function lastWords(data: PageData, kept: PracticeReturn): HTMLElement {
  const { chunks, watch, next } = data
  const sides = sidesOf(data)
  const cleanIn = (side: Side) => chunks.reduce((sum, { id }) => sum + cleanOn(kept, id, side), 0)
  const [lead = 'R', other] = sides
  const behind =
    other && cleanIn(lead) !== cleanIn(other)
      ? cleanIn(lead) < cleanIn(other)
        ? lead
        : other
      : undefined
  return element(
    'div',
    { class: 'text', tabindex: '0', role: 'region', 'aria-label': 'What to do' },
    element('h2', { tabindex: '-1' }, 'What you danced'),
    element(
      'ul',
      {},
      ...chunks.map(({ id, name, title }) =>
        element(
          'li',
          {},
          `${[name, title].filter(Boolean).join(' · ')}: ${sides.map((side) => `${sideWord[side]} ${cleanOn(kept, id, side)} clean`).join(', ')}`,
        ),
      ),
    ),
    behind &&
      element('p', { class: 'note' }, `The ${sideWord[behind]} side once more than the other.`),
    ...watch.map((line) => element('p', { class: 'line' }, `Watch for: ${line}`)),
    next && element('p', {}, `The next class is on ${next}.`),
  )
}
