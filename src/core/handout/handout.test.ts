import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import { nameOf } from '../combination/names'
import { USUAL_LOOK } from '../house/dancerLook'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import { sayPickup } from '../teaching/say'
import { sayAct } from '../teaching/sayProps'
import { handoutFile } from './handoutFile'
import { handoutMarkdown } from './markdown'

const fileOf = (combination: (typeof demo)[number], more: { isLarge?: boolean } = {}) =>
  handoutFile(
    { ...danceOf(combination, vocabulary, USUAL_HOUSE), combination },
    { paper: 'a4', day: '2026-11-30', look: USUAL_LOOK, ...more },
  )
/** What can be read of it. */
const textIn = (html: string) =>
  html
    .slice(html.indexOf('<article'))
    .replace(/<svg.*?<\/svg>/gs, '')
    .replace(/<[^>]*>/g, ' ')
    .replace(/&#(\d+);/g, (_, code) => String.fromCharCode(Number(code)))
    .replace(/\s+/g, ' ')

describe('a handout', () => {
  it('names everything that is danced, on each side, across or downwards, the same each time', () => {
    let across = 0
    holds(
      fc.property(
        fc.oneof(fc.constantFrom(...demo), anyCombination()),
        fc.boolean(),
        (one, isLarge) => {
          const html = fileOf(one, { isLarge })
          expect(fileOf(one, { isLarge })).toBe(html)
          const text = textIn(html)
          expect(text).toContain('right side')
          expect(text).toContain('left side')
          expect(html.includes('class="phrase across"') && isLarge).toBe(false)
          if (!html.includes('class="phrase down"')) across++
          if (html.includes('class="phrase down"') || one.parts) return
          const { lead } = danceOf(one, vocabulary, USUAL_HOUSE)
          // What leads into it stands above it, as it is said.
          const { carried = [] } = one
          for (const act of lead.passes.flatMap(({ acts }) => acts))
            expect(text).toContain(
              sayAct(
                act,
                carried.find(({ id }) => id === act.prop),
              ).replace(/\s+/g, ' '),
            )
          for (const { events, phrase } of lead.passes)
            for (const event of events.filter(({ at }) => at >= 0 && at < phrase.counts * 12))
              expect(text).toContain(
                (event.as ?? nameOf(event, lead.vocabulary)).replace(/\s+/g, ' '),
              )
        },
      ),
      { numRuns: 80 },
    )
    expect(across).toBeGreaterThan(0)
  })

  it('shows whatever was written as text, in its margins too', () => {
    holds(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.constantFrom(
          '</style><script>alert(1)</script>',
          '"; } body { display: none',
          '\\',
          "<img src=x onerror='x'>",
        ),
        (free, nasty) => {
          const title = `${free}${nasty}`
          const one = demo[0]
          if (!one) throw new Error('no demo')
          const html = fileOf({ ...one, title })
          expect(html).not.toMatch(/<script|<img/)
          expect(html.match(/<\/style>/g)).toHaveLength(1)
          const style = html.slice(html.indexOf('<style>'), html.indexOf('</style>'))
          // Braces of the style are its own.
          expect(style.match(/\{/g)?.length).toBe(style.match(/\}/g)?.length)
          expect(style).not.toContain('display: none')
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is a list for a notebook: a line a count of each side, and no heading that somebody wrote', () => {
    holds(
      fc.property(fc.oneof(fc.constantFrom(...demo), anyCombination()), (one) => {
        const lines = handoutMarkdown({ ...one, title: `# ${one.title}\n## x` }, vocabulary).split(
          '\n',
        )
        expect(lines.filter((line) => /^#{1,2} /.test(line))).toHaveLength(3)
        const { lead } = danceOf(one, vocabulary, USUAL_HOUSE)
        const counts = lead.passes.reduce((sum, { phrase }) => sum + phrase.counts, 0)
        const led = lead.passes.flatMap((pass) =>
          sayPickup(lead, pass, new Set(LAYERS), lead.vocabulary),
        )
        if (!one.parts)
          expect(lines.filter((line) => /^- \*\*\d+\*\*/.test(line))).toHaveLength(
            2 * (counts + led.length),
          )
      }),
      { numRuns: 60 },
    )
  })
})
