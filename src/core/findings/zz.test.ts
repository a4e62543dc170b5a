import { writeFileSync } from 'node:fs'
import { it } from 'vitest'
import { ORDINARY } from '../../../tests/ordinary'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { checkCombination } from './check'
import { severityOf } from './finding'
import { findingText, spotText } from './findingText'

it('dumps', () => {
  const out: string[] = []
  for (const sheet of ORDINARY) {
    const { combination, messages } = readSheet(sheet, vocabulary)
    out.push(`== ${combination.title} ${combination.tempo} ${combination.level}`)
    for (const m of messages) out.push(`  UNREAD ${m.text}`)
    for (const f of checkCombination(combination, vocabulary).findings)
      out.push(`  ${severityOf(f)} ${f.code} ${spotText(f.spot)} ${findingText(f)}`)
  }
  writeFileSync('/tmp/ordinary.out', out.join('\n'))
})
