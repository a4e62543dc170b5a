import Ajv from 'ajv/dist/2020'
import fc from 'fast-check'
import { parseMidi } from 'midi-file'
import webvtt from 'node-webvtt'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { writtenPerformance } from '../performance/stretches'
import { writeMidiFile } from './midi'
import { readSheet } from './readSheet'
import { combinationJsonSchema } from './schema'
import { writeVtt } from './vtt'

const { combination } = readSheet(
  'sway 1\ntitle Lamp\ntempo 120, teach 80\npickup 1\nphrase A "Walk" 4\n feet <4& kick R; 1 step R side; 3 touch L\n say 1 "walk"; 3 "touch left"\nphrase B 4\n hips 2 hip-drop R cue "drop"',
  vocabulary,
)

const written = (one: Combination) => writtenPerformance(one, vocabulary, USUAL_HOUSE)

describe('captions', () => {
  it('have every count of both sides at its time, with what is said on it', () => {
    const { cues, valid } = webvtt.parse(writeVtt(written(combination)))
    expect(valid).toBe(true)
    expect(cues.map(({ text }) => text)).toEqual([
      '5 · Right side',
      '6',
      '7',
      '8',
      '1 · A: Walk · walk',
      '2 · 3: touch left',
      '3',
      '4',
      '1 · B · 2: drop',
      '2',
      '3',
      '4',
      '5 · Left side',
      '6',
      '7',
      '8',
      '1 · A: Walk · walk',
      '2 · 3: touch right',
      '3',
      '4',
      '1 · B · 2: drop',
      '2',
      '3',
      '4',
    ])
    for (const [i, { start, end }] of cues.entries()) {
      expect(start).toBeCloseTo(i * 0.5, 3)
      expect(end).toBeCloseTo((i + 1) * 0.5, 3)
    }
    holds(
      fc.property(anyCombination(), (any) => {
        expect(webvtt.parse(writeVtt(written(any)), { strict: true }).valid).toBe(true)
      }),
      { numRuns: 150, seed: 71 },
    )
  })
})

describe('MIDI files', () => {
  const read = parseMidi(writeMidiFile(written(combination), combination.title))
  const timed = (track: number) => {
    let at = 0
    return (read.tracks[track] ?? []).map((event) => {
      at += event.deltaTime
      return { at, event }
    })
  }

  it('have the tempo, markers and lyrics where they belong', () => {
    expect(read.header.ticksPerBeat).toBe(480)
    const words = timed(0).flatMap(({ at, event }) =>
      event.type === 'setTempo'
        ? [`${at} ${event.microsecondsPerBeat}`]
        : 'text' in event
          ? [`${at} ${event.type} ${event.text}`]
          : [],
    )
    expect(words.slice(0, 8)).toEqual([
      '0 trackName Lamp',
      '0 500000',
      '0 marker Right side',
      '1920 marker A: Walk',
      '1920 lyrics walk',
      '2400 lyrics 3: touch left',
      '3840 marker B',
      '3840 lyrics 2: drop',
    ])
  })

  it('click once a count, higher on the first of a phrase', () => {
    const clicks = timed(1).flatMap(({ at, event }) =>
      event.type === 'noteOn' && event.velocity > 0 ? [[at, event.noteNumber]] : [],
    )
    expect(clicks.map(([at]) => at)).toEqual(Array.from({ length: 24 }, (_, i) => i * 480))
    expect(clicks.map(([, note]) => note === 76).flatMap((high, i) => (high ? [i] : []))).toEqual([
      4, 8, 16, 20,
    ])
  })
})

describe('the published schema', () => {
  const validate = new Ajv({ strict: false }).compile(combinationJsonSchema())

  it('accepts every combination, and refuses what the app refuses too', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        expect(validate(any)).toBe(true)
      }),
      { numRuns: 300, seed: 72 },
    )
    expect(validate({ ...combination, tempo: 400 })).toBe(false)
    expect(validate({ ...combination, lead: 'M' })).toBe(false)
    expect(validate({ ...combination, phrases: [] })).toBe(false)
    expect(validate({ ...combination, kind: 'recipe' })).toBe(false)
  })
})
