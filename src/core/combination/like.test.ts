import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyEdit } from '../../../tests/anyEdit'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { changeEvent, removeEvents } from '../edits/edits'
import { addLike, removePass } from '../edits/phrases'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import type { Combination, Phrase } from './combination'
import { followed, inherited, ownOf, ownPlaces, writtenOut } from './like'

const read = (lines: string) => readSheet(`sway 2\n${lines}`, vocabulary)
const A = 'phrase A 8\n feet 1-8 walk-forward R\n hips 2 hip-bump R; 4 hip-bump L\n say 3 "soft"'

const phraseIn = (combination: Combination, name: string): Phrase => {
  const found = combination.phrases.find((phrase) => phrase.name === name)
  if (!found) throw new Error(`no phrase ${name}`)
  return found
}
const said = ({ events }: Phrase) => events.map(({ layer, at }) => `${layer} ${at / 12}`)

describe('a phrase like another one', () => {
  it('is that one but for what is written, and is stored and written as the difference', () => {
    const sheet = `${A}\nphrase A1 "First time" like A 8\n  hips   2 none; 4 hip-drop L\n  head   1 look L\norder A1 A`
    const { combination, messages } = read(sheet)
    expect(messages).toEqual([])
    const first = phraseIn(combination, 'A1')
    expect(said(first)).toEqual(['feet 0', 'head 0', 'hips 3'])
    expect(first.remarks).toHaveLength(1)
    const printed = writeSheet(combination, vocabulary)
    expect(printed).toContain(
      'phrase A1 "First time" like A 8\n  hips   2 none; 4 hip-drop L\n  head   1 look L\n',
    )
    expect(ownOf(first, combination)?.places).toBe(3)
    expect(readSheet(printed, vocabulary).combination).toEqual(combination)
  })

  it('may be some counts of it, from the other side, in half or twice the time', () => {
    const { combination, messages } = read(
      'phrase C 8\n feet 1 step R side; 2 touch L; 3 step L side; 4 touch R; 5-8 walk-forward R\n hips 1-4 knee-shimmy rate 3\nphrase D like C~ 1-4 double\norder C D',
    )
    expect(messages).toEqual([])
    const double = phraseIn(combination, 'D')
    expect(double.counts).toBe(2)
    expect(double.events.map(({ at, rate }) => `${at} ${rate ?? ''}`.trim())).toEqual([
      '0',
      '0 3',
      '6',
      '12',
      '18',
    ])
    const [step] = double.events
    expect(step?.what).toMatchObject({
      action: { primitive: 'step', foot: 'L', direction: 'side' },
    })
    expect(writeSheet(combination, vocabulary)).toContain('phrase D like C~ 1-4 double 2\n')
    const thirds = read(
      'phrase C 4\n feet 1 step R; 1+1 step L; 2 step R\nphrase D like C double\norder C D',
    )
    expect(thirds.messages[0]?.text).toMatch(/^Phrase C can't be danced in double time/)
    const loop = read('phrase A like B 8\nphrase B like A 8')
    expect(loop.messages[0]?.text).toMatch(/can't be like itself/)
    expect(read('phrase A 8\n feet 1 none').messages[0]?.text).toMatch(/is like no other/)
    expect(read('phrase A 8\nphrase B like Aa 8').messages[0]?.text).toMatch(/Did you mean A\?/)
  })

  it('leaves out a foot nobody wrote as the other one has it, whichever is danced first', () => {
    const { combination } = read('phrase A 2\n feet 1 step; 2 step\nphrase A1 like A 2\norder A1 A')
    const [first, again] = ['A1', 'A'].map((name) => phraseIn(combination, name).events)
    expect(first?.map(({ what }) => what)).toEqual(again?.map(({ what }) => what))
  })

  it('follows each change of the other one, and stands by itself where that is gone', () => {
    const { combination } = read(`${A}\norder A`)
    const two = addLike('a1', 0)(combination)
    const bump = phraseIn(two, 'A').events.find(({ layer, at }) => layer === 'hips' && at === 36)
    const own = phraseIn(two, 'A2').events.find(({ layer, at }) => layer === 'hips' && at === 12)
    const changed = followed(two, changeEvent(own?.id ?? '', { cue: 'now' })(two))
    const without = followed(changed, removeEvents([bump?.id ?? ''])(changed))
    expect(said(phraseIn(without, 'A2'))).toEqual(['feet 0', 'hips 1'])
    expect(phraseIn(without, 'A2').events[1]?.cue).toBe('now')
    const alone = followed(without, removePass(0)(without))
    expect(alone.phrases.map(({ name, like }) => [name, like])).toEqual([['A2', undefined]])
    expect(phraseIn(writtenOut('a1')(without), 'A2').events).toEqual(phraseIn(without, 'A2').events)
  })

  it('has after any edit what it has of its own, and of the rest what the other one has now', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.array(anyEdit, { minLength: 1, maxLength: 4 }),
        (any, edits) => {
          let now = any
          for (const edit of edits) {
            const after = edit(now)
            const then = followed(now, after)
            expect(followed(then, then)).toBe(then)
            for (const phrase of then.phrases) {
              const { like } = phrase
              const [was, touched] = [now, after].map((one) =>
                one.phrases.find(({ id }) => id === phrase.id),
              )
              const source = then.phrases.find(({ id }) => id === like?.phrase)
              const before = now.phrases.find(({ id }) => id === like?.phrase)
              if (!like || !source || !before || !was || touched !== was || was.like !== like)
                continue
              const base = inherited({ like, counts: phrase.counts }, source, then)
              const had = inherited({ like, counts: was.counts }, before, now)
              if (!base || !had) continue
              const own = ownPlaces(was, had)
              for (const key of ownPlaces(phrase, base)) expect(own).toContain(key)
            }
            now = then
          }
        },
      ),
      { numRuns: 150, seed: 211 },
    )
  })
})
