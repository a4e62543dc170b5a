import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { withLengths } from '../../../tests/write'
import { type Combination, lengthOf } from '../combination/combination'
import { dancedIn, isLevelWord } from '../combination/lengths'
import { ownPickup } from '../combination/passes'
import { UserError } from '../errors'
import { vocabulary } from '../moves/vocabulary'
import { canonical } from '../sheet/canonical'
import { simulate } from '../simulate/simulate'
import { endOf, tick } from '../time/time'
import * as clips from './clip'
import type { Edit } from './edit'
import * as edits from './edits'
import * as phrases from './phrases'

/** The result of an edit; undefined where it is refused with a sentence. */
function tried(make: Edit, combination: Combination): Combination | undefined {
  try {
    return make(combination)
  } catch (error) {
    expect(error).toBeInstanceOf(UserError)
    expect((error as UserError).whatToDo.length).toBeGreaterThan(10)
    return undefined
  }
}
/** A combination with every length written out. */
const spelt = (one: Combination) =>
  canonical({
    ...one,
    phrases: one.phrases.map((phrase) => ({
      ...phrase,
      events: withLengths(phrase),
    })),
  })
const firstId = ({ phrases: [first] }: Combination) => first?.id ?? ''
const pickup = (combination: Combination) => combination.pickup?.counts ?? 0

describe('there and back', () => {
  it('counts put in and taken out again leave a phrase as it was', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 1, max: 10 }),
        fc.integer({ min: 1, max: 4 }),
        (combination, before, counts) => {
          const phrase = combination.phrases[0]!
          fc.pre(before <= phrase.counts)
          const longer = tried(phrases.insertCounts(phrase.id, before, counts), combination)
          if (!longer) return
          expect(longer.phrases[0]?.counts).toBe(phrase.counts + counts)
          const again = phrases.deleteCounts(phrase.id, before, counts)(longer)
          expect(canonical(again)).toEqual(canonical(combination))
        },
      ),
      { numRuns: 250, seed: 151 },
    )
  })

  it('half time and double time again is the same dance', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const slower = tried(phrases.retime(firstId(combination), 2, vocabulary), combination)
        // A pickup stays as long as it is written; the phrase it leads into is what is stretched.
        if (!slower || pickup(combination) > 0) return
        expect(slower.phrases[0]?.counts).toBe((combination.phrases[0]?.counts ?? 0) * 2)
        expect(spelt(phrases.retime(firstId(combination), 0.5, vocabulary)(slower))).toEqual(
          spelt(combination),
        )
        // Only the time changes: the feet do the same things in the same order.
        if (combination.order.every(({ phrase }) => phrase === firstId(combination))) {
          const done = (c: Combination) =>
            simulate(c, vocabulary)
              .danced.filter(({ event }) => event.what.kind === 'foot')
              .map(({ action }) => action)
          expect(done(slower)).toEqual(done(combination))
        }
      }),
      { numRuns: 250, seed: 152 },
    )
  })

  it('a pass turned round twice, moved there and back, or repeated and taken out, is where it was', () => {
    holds(
      fc.property(anyCombination(), fc.nat(5), (any, which) => {
        // What begins the loop can't be first, and come back as that.
        const order = any.order.map(({ loops: _, ...entry }) => entry)
        const combination: Combination = { ...any, order }
        const at = which % order.length
        const same = (...list: Edit[]) =>
          expect(list.reduce<Combination>((c, make) => make(c), combination)).toEqual(combination)
        same(phrases.turnPass(at), phrases.turnPass(at))
        if (pickup(combination) === 0) {
          const last = combination.order.length - 1
          same(phrases.movePass(at, last), phrases.movePass(last, at))
          const repeated = tried(phrases.repeatPass(at), combination)
          if (repeated) expect(phrases.removePass(at + 1)(repeated)).toEqual(combination)
        }
      }),
      { numRuns: 250, seed: 153 },
    )
  })

  it('what is copied from a phrase and pasted into an empty one of its length is the same phrase', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const phrase = {
          ...any.phrases[0]!,
          events: any.phrases[0]!.events.filter(({ at }) => at >= 0),
        }
        const { pickup: _, ...plain } = any
        const empty = { id: 'new', name: 'Z', title: '', counts: phrase.counts, events: [] }
        const combination = {
          ...plain,
          phrases: [phrase, empty],
          order: [
            { phrase: phrase.id, mirrored: false },
            { phrase: 'new', mirrored: false },
          ],
        }
        const clip = {
          events: phrase.events.map((event) => ({ event, offset: event.at, danced: 12 })),
        }
        let made = 0
        const pasted = clips.paste(clip, 1, tick(0), () => `n${made++}`)(combination)
        expect(clips.roomFor(clip, 1, tick(0), combination)).toBe(phrase.events.length)
        const plainEvents = (index: number) =>
          canonical(pasted).phrases[index]?.events.map(({ id: __, ...event }) => event)
        expect(plainEvents(1)).toEqual(plainEvents(0))
        const twice = clips.mirroredClip(clips.mirroredClip(clip))
        expect(twice.events.map(({ event }) => event)).toEqual(
          clip.events.map(({ event }) => event),
        )
      }),
      { numRuns: 200, seed: 154 },
    )
  })

  it('a figure that is opened dances the very steps it stood for', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        // What an option takes the place of begins within its counts: a figure, but not all of its steps.
        const order = any.order.map(({ options: _, ...entry }) => entry)
        const combination = { ...any, order }
        const figures = combination.phrases
          .flatMap(({ events }) => events)
          .filter(({ layer, what }) => layer === 'feet' && what.kind === 'move')
        // With a pickup a figure may run over its border, which its single steps do not.
        // Of two that clash, what one is opened into would end the other.
        const isAlone = combination.phrases.every((phrase) => {
          const feet = dancedIn(phrase, vocabulary)
            .filter((event) => event.layer === 'feet' && !isLevelWord(event))
            .sort((a, b) => a.at - b.at)
          return feet.every((event, i) => i === 0 || endOf(feet[i - 1] ?? event) <= event.at)
        })
        const isLed = combination.phrases.some((phrase) => ownPickup(phrase) > 0)
        fc.pre(figures.length > 0 && !isLed && isAlone)
        let made = 0
        const opened = figures.reduce<Combination>(
          (c, { id }) => edits.openFigure(id, vocabulary, () => `n${made++}`)(c),
          combination,
        )
        const steps = (c: Combination) =>
          simulate(c, vocabulary)
            .danced.map(({ at, action }) => `${at} ${JSON.stringify(action)}`)
            .sort()
        expect(steps(opened)).toEqual(steps(combination))
      }),
      { numRuns: 200, seed: 155 },
    )
  })
})

describe('what does not work', () => {
  it('is refused with a sentence: too long, too short, too much in all', () => {
    const one = fc.sample(anyCombination(), { numRuns: 1, seed: 156 })[0]!
    const id = firstId(one)
    const counts = one.phrases[0]!.counts
    expect(() => phrases.insertCounts(id, 1, 17 - counts)(one)).toThrow(
      /a phrase has 16 at the most/,
    )
    expect(() => phrases.deleteCounts(id, 1, counts)(one)).toThrow(/at least one count/)
    const many = {
      ...one,
      order: Array(Math.floor(256 / counts)).fill({ phrase: id, mirrored: false }),
    }
    expect(() => phrases.setCounts(id, 16)(many)).toThrow(/a combination has 256 at the most/)
    expect(() => phrases.addPhrase('z', 0, 16)(many)).toThrow(/256/)
    expect(lengthOf(one.phrases[0]!)).toBe(counts * 12)
    expect(phrases.movePass(0, 99)(one)).toBe(one)
    expect(phrases.removePass(0)({ ...one, order: one.order.slice(0, 1) }).order).toHaveLength(1)
  })
})
