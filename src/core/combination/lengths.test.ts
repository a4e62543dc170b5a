import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { endOf, TICKS_PER_COUNT } from '../time/time'
import { claimOf } from './claims'
import { asDanced, dancedIn, isLevelWord, ownLengthOf, writtenOf } from './lengths'
import { mirrorPhrase } from './mirror'

const isTexture = (event: Parameters<typeof claimOf>[0]) =>
  claimOf(event, vocabulary).kind === 'texture'

describe('what is not written', () => {
  it.each([
    ['hips 3 hip-lift R; 3& hip-drop R', [6, 12]],
    ['hips 1 hip-circle-large cw', [96]],
    ['hips 1 hip-circle-large cw; 3 hip-bump R', [24, 12]],
    ['hips 7 hip-circle-large cw', [24]],
    ['hips 1-4 hip-circle-large cw; 3 hip-bump R', [48, 12]],
    ['hips 1 hip-circle-large cw; 2 knee-shimmy', [96, 48]],
    ['hips 1-8 knee-shimmy; 3 twist-shimmy', [96, 48]],
    ['feet 1 grapevine R; 2 rise; 3 step L side', [24, 12, 12]],
    ['arms 1-4 both hips; 3-3 R front', [48, 12]],
    ['arms 1-4 both hips; 3 both front', [24, 12]],
    ['torso 1-8 rib-slide R; 5 chest-pop', [48, 12]],
    ['hips 1-4 at R\ntorso 3 camel', [24, 24]],
  ] as const)('lasts as it is danced: %s', (lines, lengths) => {
    const { combination } = readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary)
    const danced = combination.phrases.flatMap((phrase) => dancedIn(phrase, vocabulary))
    expect(danced.map(({ length }) => length)).toEqual(lengths)
    // Each arm is on its way by itself.
    if (lines.startsWith('arms 1-4 both hips; 3-3'))
      expect(danced[0]?.ways).toEqual({ R: 24, L: 48 })
  })

  it('lasts its own counts, to what follows, or to the end; and nothing of it is stored', () => {
    holds(
      fc.property(anyCombination(), ({ phrases }) => {
        for (const phrase of phrases) {
          const end = phrase.counts * TICKS_PER_COUNT
          for (const [i, event] of dancedIn(phrase, vocabulary).entries()) {
            const written = phrase.events[i]
            expect(writtenOf(event)).toBe(written)
            expect(event.length).toBeGreaterThan(0)
            if (written?.length !== undefined) {
              expect(event.length).toBeLessThanOrEqual(written.length)
              if (claimOf(written, vocabulary).kind !== 'place')
                expect(event.length).toBe(written.length)
              continue
            }
            // What is free, or stays, does so until something else is written.
            const isOpen = event.what.kind === 'free' || event.what.kind === 'stay'
            const own = isOpen ? end - event.at : ownLengthOf(event, vocabulary)
            expect(event.length).toBeLessThanOrEqual(own)
            expect(endOf(event)).toBeLessThanOrEqual(end)
            expect(event.isCut === true).toBe(event.length < own)
            if (event.isCut && endOf(event) < end)
              expect(phrase.events.some(({ at }) => at === endOf(event))).toBe(true)
          }
        }
      }),
      { numRuns: 300, seed: 631 },
    )
  })

  it('is ended by no texture and by no word of the height, and is the same on the other side', () => {
    holds(
      fc.property(anyCombination({ kept: false }), ({ phrases }) => {
        for (const phrase of phrases) {
          const all = dancedIn(phrase, vocabulary)
          const others = phrase.events.filter((event) => !isTexture(event) && !isLevelWord(event))
          const alone = asDanced(others, phrase.counts, vocabulary)
          for (const event of alone)
            expect(event.length).toBe(all.find(({ id }) => id === event.id)?.length)
          const mirrored = dancedIn(mirrorPhrase(phrase), vocabulary)
          expect(mirrored.map(({ length }) => length)).toEqual(all.map(({ length }) => length))
          expect(mirrored.map(({ ways }) => ways && [ways.L, ways.R])).toEqual(
            all.map(({ ways }) => ways && [ways.R, ways.L]),
          )
        }
      }),
      { numRuns: 200, seed: 632 },
    )
  })
})
