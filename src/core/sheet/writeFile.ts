import type { Combination } from '../combination/combination'
import { handoutMarkdown } from '../handout/markdown'
import { USUAL_HOUSE } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { writtenPerformance } from '../performance/stretches'
import { writeCsv } from './csv'
import type { Format } from './formats'
import { writeMidiFile } from './midi'
import { writeSwayJson } from './swayJson'
import { writeVtt } from './vtt'
import { writePage } from './writePage'
import { writeSheet } from './writeSheet'

/** A combination as the content of a file: bytes for MIDI, text for all others. */
export function writeCombinationFile(
  combination: Combination,
  format: Format,
  vocabulary: Vocabulary,
): string | Uint8Array {
  switch (format) {
    case 'json':
      return writeSwayJson(combination)
    case 'sway':
      return writeSheet(combination, vocabulary)
    case 'txt':
      return writePage(combination, vocabulary)
    case 'md':
      return handoutMarkdown(combination, vocabulary)
    case 'csv':
      // Without this mark spreadsheets read the letters of another century.
      return `\uFEFF${writeCsv(combination, vocabulary)}`
    case 'vtt':
      return writeVtt(writtenPerformance(combination, vocabulary, USUAL_HOUSE))
    case 'mid':
      return writeMidiFile(
        writtenPerformance(combination, vocabulary, USUAL_HOUSE),
        combination.title,
      )
  }
}
