import webvtt from 'node-webvtt'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { clockTenths } from '../time/clock'
import { cueSheet, cueSheetCsv, cueSheetVtt } from './cueSheet'
import { dancedTo } from './danced'
import { laidOn, restedOn } from './edits'
import { laidOut } from './laid'
import { countsFrom } from './room'

describe('a combination laid on a song at its own tempo', () => {
  it('is written as a cue sheet that is read back: a row a piece, a caption a count', () => {
    const [one, other] = demo as readonly [Combination, Combination]
    const counts = countsFrom(one)
    const song = songOf(evenMs(counts + 24, 96), [0, counts], 0)
    const find = (id: string) => demo.find((each) => each.id === id)
    const lying = laidOn(
      empty,
      song,
      { ...one, title: '=Odd "name", <b>' },
      { at: 0, side: 'L', id: 'a' },
    )
    const routine = restedOn(laidOn(lying, song, other, { at: counts, side: 'R', id: 'b' }), song, {
      at: counts + 20,
      counts: 4,
      how: 'pose',
      id: 'c',
    })
    const titled = (id: string) => {
      const found = find(id)
      return found === one ? { ...one, title: '=Odd "name", <b>' } : found
    }
    const short = {
      ...routine,
      pieces: routine.pieces.map((piece) => (piece.id === 'b' ? { ...piece, counts: 16 } : piece)),
    }
    const laid = laidOut(short, song, titled)
    const rows = cueSheet(short, song, laid, dancedTo(laid, song, vocabulary, USUAL_HOUSE))
    expect(rows.map(({ count, counts: long, side }) => [count, long, side])).toEqual(
      short.pieces.map((piece) => [
        piece.at + 1,
        piece.counts,
        piece.what.kind === 'dance' ? piece.what.side : '',
      ]),
    )
    for (const { tempo, facing } of rows) {
      expect(tempo).toBeCloseTo(96, 0)
      expect(facing).not.toBe('')
    }
    const { data } = Papa.parse<Record<string, string>>(cueSheetCsv(rows).slice(1), {
      header: true,
      skipEmptyLines: true,
    })
    expect(data.map(({ time, place, what }) => [time, place, what?.replace(/^'/, '')])).toEqual(
      rows.map(({ seconds, place, what }) => [clockTenths(seconds), place, what]),
    )
    const { cues } = webvtt.parse(cueSheetVtt(rows, song, laid))
    expect(cues).toHaveLength(song.counts.ms.length)
    for (const [i, cue] of cues.entries())
      expect(cue.start).toBeCloseTo((song.counts.ms[i] as number) / 1000, 3)
    for (const { count, side } of rows) expect(cues[count - 1]?.text).toContain(side)
  })
})
