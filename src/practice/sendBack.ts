import type { PageData } from '../core/practice/pageData'
import {
  MOST_NAME,
  MOST_NOTE,
  type PracticeReturn,
  returnText,
  sent,
} from '../core/practice/returned'
import { button, element } from '../page/element'

/** What is sent back: a name if one likes, a line, as text for any message or as a file. */
export function sendBack(
  { chunks }: PageData,
  kept: PracticeReturn,
  keep: (kept: PracticeReturn) => void,
): HTMLElement {
  let now = kept
  const text = element('textarea', { readonly: true, rows: '8', 'aria-label': 'To send back' })
  const show = () => {
    text.value = returnText(sent(now), chunks)
  }
  const field = (
    label: string,
    most: number,
    value: string,
    change: (value: string) => Partial<PracticeReturn>,
  ) => {
    const input = element('input', { type: 'text', maxlength: String(most), value })
    input.addEventListener('input', () => {
      now = { ...now, ...change(input.value.trim()) }
      keep(now)
      show()
    })
    return element('label', {}, label, input)
  }
  const said = element('p', { role: 'status' })
  show()
  return element(
    'section',
    { class: 'send', 'aria-label': 'Send back' },
    element('h2', {}, 'Send back'),
    element(
      'p',
      {},
      'Your teacher sees what you practised, and what was not yet. Nothing is sent by itself.',
    ),
    field('Your name, if you like', MOST_NAME, now.who ?? '', (who) => ({ who: who || undefined })),
    field('A line to your teacher', MOST_NOTE, now.note ?? '', (note) => ({
      note: note || undefined,
    })),
    text,
    element(
      'div',
      { class: 'answers' },
      button(
        'Copy as text',
        () => {
          text.select()
          void navigator.clipboard
            ?.writeText(text.value)
            .catch(() => undefined)
            .then(() => {
              said.textContent = 'Copied: paste it into a message.'
            })
        },
        { class: 'main' },
      ),
      button('Save as a file', () => {
        const url = URL.createObjectURL(
          new Blob([JSON.stringify(sent(now))], { type: 'application/json' }),
        )
        const link = element('a', {
          href: url,
          download: `${now.title || 'Practice'}.sway-practice.json`,
        })
        link.click()
        URL.revokeObjectURL(url)
      }),
    ),
    said,
  )
}
