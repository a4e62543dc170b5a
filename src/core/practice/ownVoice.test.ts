import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import type { OwnWord } from '../calling/ownWords'
import type { Bank, WordPlace } from '../calling/spokenWords'
import { USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { base64, bytesOf } from './base64'
import { pageDataOf } from './makePage'
import { packedWord, unpackedWord } from './ownVoice'
import { pageDance } from './pageDance'
import { practicePage } from './practicePage'
import { ownWordsOf, secondsOnPage, type Voice, withVoice } from './voice'

const FOLDER = join('src', 'audio', 'voice')
const voice = (): Voice => {
  const table: Record<string, Record<Bank, WordPlace>> = JSON.parse(
    readFileSync(join(FOLDER, 'words.json'), 'utf8'),
  )
  return {
    words: new Map(Object.entries(table).map(([word, places]) => [folded(word), places])),
    files: {
      normal: new Uint8Array(readFileSync(join(FOLDER, 'normal.ogg'))),
      fast: new Uint8Array(readFileSync(join(FOLDER, 'fast.ogg'))),
    },
  }
}

/** Something like a word: a tone that comes and goes. */
const word = (rate: number, seconds: number, hertz = 220): OwnWord => ({
  samples: Float32Array.from({ length: Math.round(rate * seconds) }, (_, i) => {
    const at = i / rate
    return 0.5 * Math.sin(Math.PI * (at / seconds)) * Math.sin(2 * Math.PI * hertz * at)
  }),
  rate,
  onset: 0.05,
})

describe('the instructor’s own voice on a page', () => {
  it('sounds as it was said, in a byte a sample', () => {
    for (const rate of [16_000, 22_050, 44_100, 48_000]) {
      const said = word(rate, 0.4)
      const packed = packedWord(said)
      expect(packed.rate).toBeLessThan(24_000)
      const back = unpackedWord(JSON.parse(JSON.stringify(packed)))
      expect(back.onset).toBe(0.05)
      expect(back.samples.length / back.rate).toBeCloseTo(0.4, 3)
      let [both, own, its] = [0, 0, 0]
      for (const [i, x] of back.samples.entries()) {
        const y = said.samples[Math.round((i * rate) / back.rate)] ?? 0
        both += x * y
        own += x * x
        its += y * y
      }
      expect(both / Math.sqrt(own * its)).toBeGreaterThan(0.99)
      expect(packedWord(said)).toEqual(packed)
    }
  })

  it('comes back byte by byte, whatever the bytes are', () => {
    holds(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        expect(base64(bytes)).toBe(Buffer.from(bytes).toString('base64'))
        expect(bytesOf(base64(bytes))).toEqual(bytes)
      }),
      { numRuns: 200, seed: 95 },
    )
  })

  it('goes before the app’s, only what is called of it goes along, and its length is what is planned with', () => {
    const [one] = demo
    if (!one) throw new Error('no demo')
    const page = pageDataOf(one, vocabulary, USUAL_RULES, { made: '2026-11-30' })
    const plain = withVoice(page, voice())
    const own = new Map([
      [folded('touch'), word(48_000, 0.7)],
      [folded('never called here'), word(48_000, 0.5)],
    ])
    const spoken = withVoice(page, voice(), own)
    expect(Object.keys(spoken.own ?? {})).toEqual([folded('touch')])
    expect(plain.own).toBeUndefined()
    expect(spoken.id).not.toBe(plain.id)
    // What she says herself needs no place in the banks.
    expect(Object.keys(plain.voice?.normal?.words ?? {})).toContain('touch')
    expect(Object.keys(spoken.voice?.normal?.words ?? {})).not.toContain('touch')
    expect(ownWordsOf(spoken).get(folded('touch'))?.onset).toBe(0.05)
    expect(secondsOnPage(spoken)('touch', false)).toBeCloseTo(0.7, 3)
    expect(secondsOnPage(spoken)('one', false)).toBe(secondsOnPage(plain)('one', false))
    const html = practicePage(JSON.parse(JSON.stringify(spoken)), {
      script: '',
      style: '',
      hash: '',
    })
    expect(html).toContain('"own":')
    // It is called where it has room, by its own length.
    const dance = pageDance(spoken, secondsOnPage(spoken))
    const { calls } = dance.allFrom(undefined, { side: one.lead, percent: 100, layers: ['feet'] })
    const touch = calls.find(({ say }) => say?.text === 'touch')
    expect(touch?.length).toBeCloseTo((0.7 * 12 * one.tempo) / 60, 0)
  })
})
