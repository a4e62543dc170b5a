import Papa from 'papaparse'
import { byDate, type ClassEntry, type Group } from './diary'

/** The diary as a table: a row for every drill that was danced; a class without any has one row too. */
export function diaryCsv(classes: readonly ClassEntry[], groups: readonly Group[]): string {
  const nameOf = (id: string | undefined) => groups.find((group) => group.id === id)?.name ?? ''
  const rows = [...classes].sort(byDate).flatMap((one) => {
    const head = {
      date: one.date,
      start: one.start,
      minutes: one.minutes,
      group: nameOf(one.group),
      room: one.room,
      class: one.title,
      notes: one.notes,
      next: one.next,
    }
    const drills = one.danced.map((drill) => ({
      ...head,
      drill: drill.title,
      combination: drill.combinationTitle ?? '',
      phrases: drill.phrases.map(({ name }) => name).join(' '),
      layers: drill.layers.join(' '),
      rounds_right: drill.rounds.R,
      rounds_left: drill.rounds.L,
      counts_a_round: drill.counts,
      tempo: drill.tempo,
      load: Math.round(drill.load * 100) / 100,
      verdict: drill.verdict ?? '',
    }))
    return drills.length > 0 ? drills : [head]
  })
  // Spreadsheets take a file without this mark for one in another encoding.
  return `\uFEFF${Papa.unparse(rows, { columns: COLUMNS, newline: '\r\n', escapeFormulae: /^[=+\-@\t\r]/ })}\r\n`
}

const COLUMNS = [
  'date',
  'start',
  'minutes',
  'group',
  'room',
  'class',
  'drill',
  'combination',
  'phrases',
  'layers',
  'rounds_right',
  'rounds_left',
  'counts_a_round',
  'tempo',
  'load',
  'verdict',
  'notes',
  'next',
]
