import webvtt from 'node-webvtt'
import Papa from 'papaparse'
import { facingWord } from '../body/facing'
import type { Pace } from '../combination/pace'
import { inMilliseconds, plain } from '../sheet/vtt'
import type { Danced } from '../simulate/danced'
import { placeWords } from '../song/lines'
import { type Song, secondsOfCount, songTime, tickOfCount } from '../song/song'
import { clockTenths } from '../time/clock'
import { tempoOver } from '../time/timeMap'
import { backOn } from './backOn'
import { type Laid, laidOut } from './laid'
import { emptyRoutine, type Piece, type Routine, restWords } from './routine'
import { LOST } from './words'

/** A line of a cue sheet: one piece, or a rest. */
export interface CueRow {
  /** Seconds of the song. */
  readonly seconds: number
  /** `Chorus 3·5`. */
  readonly place: string
  /** From the first one that is danced to, from 1. */
  readonly count: number
  readonly counts: number
  readonly what: string
  /** Its phrases in their order: `A B A`. */
  readonly phrases: string
  readonly side: string
  /** Where the body faces as it begins. */
  readonly facing: string
  /** How fast it is danced, where that is not as it is written. */
  readonly pace: string
  /** What to come back on. */
  readonly cue: string
  /** Counts a minute, in the mean. */
  readonly tempo: number
}

/** Everything that is laid on a song, in its order, with when and where. */
export function cueSheet(
  { pieces }: Routine,
  song: Song,
  laid: Laid,
  dance: Danced,
): readonly CueRow[] {
  const time = songTime(song)
  return pieces.flatMap((piece): readonly CueRow[] => {
    const own = laid.passes.flatMap((pass, i) => (pass.piece === piece ? [{ pass, i }] : []))
    const first = own[0]
    if (!first) return []
    const { at, counts } = piece
    const facing = dance.lead.slices[first.i]?.entry.facing ?? 0
    return [
      {
        seconds: inMilliseconds(secondsOfCount(song, at)),
        place: placeWords(song, at),
        count: at - laid.from + 1,
        counts,
        what: whatOf(piece, first.pass.combination?.title),
        phrases: own.map(({ i }) => dance.lead.passes[i]?.phrase.name ?? '').join(' '),
        side: piece.what.kind === 'dance' ? piece.what.side : '',
        facing: facingWord(facing),
        pace: piece.what.kind === 'dance' ? PACE_WORDS[piece.what.pace ?? 1] : '',
        cue: backOn(piece, song) ?? '',
        tempo:
          Math.round(10 * tempoOver(time, tickOfCount(song, at), tickOfCount(song, at + counts))) /
          10,
      },
    ]
  })
}

const PACE_WORDS: Readonly<Record<Pace | 1, string>> = { 1: '', 2: 'double', 0.5: 'half' }

const whatOf = ({ what }: Piece, title: string | undefined): string =>
  what.kind === 'rest' ? restWords(what) : (title ?? LOST)

/** The cue sheet as a table for a spreadsheet. */
export function cueSheetCsv(rows: readonly CueRow[]): string {
  const table = rows.map((row) => ({
    time: clockTenths(row.seconds),
    place: row.place,
    count: row.count,
    counts: row.counts,
    what: row.what,
    phrases: row.phrases,
    side: row.side,
    facing: row.facing,
    pace: row.pace,
    cue: row.cue,
    tempo: row.tempo,
  }))
  // Spreadsheets take a file without this mark for one in another encoding.
  return `\uFEFF${Papa.unparse(table, { columns: COLUMNS, newline: '\r\n', escapeFormulae: /^[=+\-@\t\r]/ })}\r\n`
}

const COLUMNS = [
  'time',
  'place',
  'count',
  'counts',
  'what',
  'phrases',
  'side',
  'facing',
  'pace',
  'cue',
  'tempo',
]

/** Where in the song each picture of its film is, as captions at the film's own times. */
export function filmVtt(song: Song): string {
  const { media } = song
  const shift = media.shift + 1000 * (media.part?.from ?? 0)
  const nothing = laidOut(emptyRoutine(song.id, song), song, () => undefined)
  return cueSheetVtt([], { ...song, media: { ...media, shift } }, nothing)
}

/** The same as captions for a film of the song: one a count, what begins there on its first. */
export function cueSheetVtt(rows: readonly CueRow[], song: Song, { from }: Laid): string {
  const time = songTime(song)
  const begins = new Map(rows.map((row) => [from + row.count - 1, row]))
  const cues = Array.from({ length: song.counts.ms.length - from }, (_, i) => {
    const at = from + i
    const row = begins.get(at)
    const section = song.sections.find((one) => one.at === at)
    const said = [section?.label, row?.what, row?.side].filter(Boolean).join(', ')
    const number = placeWords(song, at).split('·').at(-1)
    return {
      identifier: String(i + 1),
      start: inMilliseconds(time.secondsAt(tickOfCount(song, at))),
      end: inMilliseconds(time.secondsAt(tickOfCount(song, at + 1))),
      text: [number, plain(said)].filter(Boolean).join(' · '),
      styles: '',
    }
  })
  return webvtt.compile({ valid: true, cues })
}
