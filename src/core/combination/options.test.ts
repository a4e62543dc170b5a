import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyEdit } from '../../../tests/anyEdit'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { placeEvent, removeEvents } from '../edits/edits'
import { addOption, describeOption, pickOptions, removeOption } from '../edits/options'
import { checkCombination } from '../findings/check'
import { findingText } from '../findings/findingText'
import { levelForm } from '../forms/levels'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { simulate } from '../simulate/simulate'
import { tick } from '../time/time'
import { Combination, type Event, type Phrase } from './combination'
import { throughOption, withOptions, withTried } from './options'

const read = (lines: string) => readSheet(`sway 2\n${lines}`, vocabulary)
const SHEET = `phrase B 8
  option low easier "back half only"
  feet   1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5-8 hold
  hips   1-4 hip-circle-large cw; 5 hip-bump R
  hips   [low] 1-4 half-circle-back R; [low] 5-8 none
  head   [low] 1 look back R
order B B[low+in-place] B~[low]`

const said = ({ events }: Pick<Phrase, 'events'>) =>
  events.map(
    ({ layer, at, what }) => `${layer} ${at / 12} ${what.kind === 'move' ? what.move : what.kind}`,
  )

describe('options of a phrase', () => {
  it('are read, danced where they are picked, and written as they stand', () => {
    const { combination, messages } = read(SHEET)
    expect(messages).toEqual([])
    const { passes } = simulate(combination, vocabulary)
    const hips = passes.map((pass) => said(pass).filter((one) => one.startsWith('hips')))
    expect(hips).toEqual([
      ['hips 0 hip-circle-large', 'hips 4 hip-bump'],
      ['hips 0 half-circle-back'],
      ['hips 0 half-circle-back'],
    ])
    expect(
      passes[1]?.events.find(({ at, layer }) => at === 0 && layer === 'feet')?.what,
    ).toMatchObject({
      action: { primitive: 'step', foot: 'R', direction: 'in-place' },
    })
    expect(passes[2]?.events.find(({ layer }) => layer === 'head')?.what).toMatchObject({
      gaze: 'back-L',
    })
    const printed = writeSheet(combination, vocabulary)
    expect(printed).toContain(
      '  hips   1-4 hip-circle-large cw; 5 hip-bump R; [low] 1-4 half-circle-back R; [low] 5-8 none\n  head   [low] 1 look back R\n',
    )
    expect(printed).toContain('order   B B[low+in-place] B~[low]\n')
    expect(readSheet(printed, vocabulary).combination).toEqual(combination)
  })

  it('that any phrase has: no turns, twice where it can be halved, and a word where it can not', () => {
    const { combination } = read(
      'phrase A 4\n feet 1 step R forward turn 90; 2 pivot 180; 3-4 walk-forward L share 90\norder A[front]',
    )
    const [pass] = simulate(combination, vocabulary).passes
    expect(pass?.events.filter(({ what }) => what.kind === 'share')).toEqual([])
    expect(simulate(combination, vocabulary).end.facing).toBe(0)
    const double = read('phrase A 4\n feet 1 step R; 2 step L; 3 step R; 4 step L\norder A[double]')
    expect(double.messages).toEqual([])
    expect(simulate(double.combination, vocabulary).danced.map(({ at }) => at)).toEqual([
      0, 6, 12, 18, 24, 30, 36, 42,
    ])
    const odd = read('phrase A 3\n feet 1 step R\norder A[double]')
    expect(odd.messages[0]?.text).toMatch(/can't be danced twice in its time/)
    expect(odd.combination.unread).toEqual([{ line: 'order', text: 'A[double]' }])
    expect(read('phrase A 3\norder A[lo]').messages[0]?.text).toMatch(/has no option “lo”/)
    expect(read('phrase A 8\n hips [low] 1 hip-bump R').messages[0]?.text).toMatch(
      /option low easier/,
    )
    expect(read('phrase A 8\n option front easier "x"').messages[0]?.text).toMatch(/another name/)
  })

  it('are judged alone, say where they end otherwise, and a level takes them whole, taste never', () => {
    const { combination } = read(SHEET.replace(/\norder.*/, ''))
    expect(
      checkCombination(combination, vocabulary).findings.filter(({ option }) => option),
    ).toEqual([])
    const slip = read(
      `${SHEET.replace(/\norder.*/, '')}\n feet [low] 1 step L side; [low] 8 step R`,
    ).combination
    const found = checkCombination(slip, vocabulary).findings.filter(({ option }) => option)
    expect(found.map(({ code }) => code)).toContain('feet.loaded')
    expect(found.map(({ code }) => code)).toContain('option.ends')
    expect(
      found.map((one) => findingText(one)).every((text) => text.startsWith('With “low”: ')),
    ).toBe(true)
    const easier = levelForm({ ...combination, level: 'advanced' }, 'new', vocabulary, USUAL_HOUSE)
    expect(easier.swaps[0]).toMatchObject({ kind: 'easier', at: 'B', to: 'back half only' })
    expect(said(easier.combination.phrases[0]!)).not.toContain('hips 0 hip-circle-large')
    const taste = read(
      SHEET.replace('low easier', 'low taste').replace(/\norder.*/, ''),
    ).combination
    const { swaps } = levelForm({ ...taste, level: 'advanced' }, 'new', vocabulary, USUAL_HOUSE)
    expect(swaps.filter(({ to }) => to === 'back half only')).toEqual([])
  })

  it('are written and changed by hand, and taken out of the order with what they say', () => {
    const { combination } = read('phrase A 8\n feet 1 step R side\n hips 5 hip-bump R\norder A')
    const made = addOption('A', { name: 'low', kind: 'easier', words: '' })(combination)
    const bump = made.phrases[0]?.events.find(({ layer }) => layer === 'hips')?.id ?? ''
    const event: Event = {
      id: 'new',
      layer: 'hips',
      at: tick(12),
      what: { kind: 'at', place: 'L' },
    }
    const changed = throughOption('A', 'low', (one) =>
      placeEvent('A', event)(removeEvents([bump])(one)),
    )(made)
    expect(changed.phrases[0]?.events).toEqual(made.phrases[0]?.events)
    expect(changed.phrases[0]?.options?.[0]).toMatchObject({
      words: 'low',
      without: [{ layer: 'hips', at: 48 }],
    })
    const danced = pickOptions(0, ['low', 'front'])(changed)
    const renamed = describeOption('A', 'low', { name: 'still' })(danced)
    expect(renamed.order[0]?.options).toEqual(['still', 'front'])
    const without = removeOption('A', 'still')(renamed)
    expect(without.order[0]?.options).toEqual(['front'])
    expect(without.phrases[0]?.options).toBeUndefined()
    expect(() => pickOptions(0, ['still'])(without)).toThrow(/has no option/)
    expect(() => addOption('A', { name: 'front', kind: 'room', words: '' })(without)).toThrow()
  })

  it('hold exactly what an edit made of the phrase as it is danced with them, and leave the rest', () => {
    const ORDER = (a: Event, b: Event) => a.at - b.at || (a.id < b.id ? -1 : 1)
    const plain = (events: readonly Event[]) =>
      events.map((one) => JSON.stringify({ ...one, id: '' })).sort()
    holds(
      fc.property(
        anyCombination(),
        fc.array(anyEdit, { minLength: 1, maxLength: 4 }),
        (any, edits) => {
          const phrase = any.phrases[0]!
          let now = phrase.options?.some(({ name }) => name === 'low')
            ? any
            : addOption(phrase.id, { name: 'low', kind: 'taste', words: 'x' })(any)
          for (const edit of edits) {
            const shown = withTried(now, phrase.id, ['low'])
            const after = edit(shown)
            const made = after.phrases.find(({ id }) => id === phrase.id)
            const before = now.phrases.find(({ id }) => id === phrase.id)
            const next = throughOption(phrase.id, 'low', edit)(now)
            expect(Combination.safeParse(next).error?.issues).toBeUndefined()
            const stored = next.phrases.find(({ id }) => id === phrase.id)
            if (!made || !before || !stored?.options?.some(({ name }) => name === 'low')) return
            if (made.counts === before.counts) {
              expect([...stored.events].sort(ORDER)).toEqual([...before.events].sort(ORDER))
              expect(plain(withOptions(stored, ['low'], vocabulary).events)).toEqual(
                plain(made.events),
              )
            }
            now = next
          }
        },
      ),
      { numRuns: 200, seed: 223 },
    )
  })
})
