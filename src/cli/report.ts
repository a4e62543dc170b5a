import { otherSide, type Side } from '../core/body/side'
import type { Combination } from '../core/combination/combination'
import { type Checked, checkCombination } from '../core/findings/check'
import { type Finding, type Severity, severityOf } from '../core/findings/finding'
import { findingText, placeText, spotText } from '../core/findings/findingText'
import type { Vocabulary } from '../core/moves/vocabulary'
import type { SheetMessage } from '../core/sheet/lines'
import { middleOf } from '../core/simulate/floor'
import { TICKS_PER_COUNT } from '../core/time/time'

/** What `check --json` prints. */
export interface Report {
  readonly title: string
  readonly counts: number
  readonly lead: Side
  readonly ends: {
    readonly weight: Side | 'both'
    readonly free: Side | 'both'
    readonly facing: number
    /** Metres, from the start. */
    readonly travel: { readonly right: number; readonly forward: number }
  }
  readonly joins: { readonly repeats: boolean; readonly switches: boolean }
  readonly findings: readonly ReportedFinding[]
  readonly messages: readonly {
    readonly line: number
    readonly column: number
    readonly text: string
  }[]
}

interface ReportedFinding {
  readonly code: Finding['code']
  readonly kind: Severity
  readonly side: 'lead' | 'other'
  readonly at: string
  /** Which time round, when the phrase is danced more than once. */
  readonly pass?: number
  readonly layer: string
  readonly text: string
}

const millimetres = (metres: number): number => Math.round(metres * 1000) / 1000 + 0

export function report(
  combination: Combination,
  messages: readonly SheetMessage[],
  vocabulary: Vocabulary,
): Report {
  const checked = checkCombination(combination, vocabulary)
  const { lead, joins, findings } = checked
  const { weight, facing } = lead.end
  return {
    title: combination.title,
    counts: lead.length / TICKS_PER_COUNT,
    lead: combination.lead,
    ends: {
      weight,
      free: weight === 'both' ? 'both' : otherSide[weight],
      facing,
      travel: travelOf(checked),
    },
    joins: { repeats: joins.repeats, switches: joins.switches },
    findings: findings.map((finding) => ({
      code: finding.code,
      kind: severityOf(finding),
      side: finding.side,
      at: placeText(finding.spot),
      ...(finding.spot.time !== undefined && { pass: finding.spot.time }),
      layer: finding.spot.layer,
      text: findingText(finding),
    })),
    messages: messages.map(({ line, column, text }) => ({ line, column, text })),
  }
}

function travelOf({ lead }: Checked) {
  const [from, to] = [middleOf(lead.start), middleOf(lead.end)]
  return {
    right: millimetres(to.right - from.right),
    forward: millimetres(to.forward - from.forward),
  }
}

/** The report for people. */
export function reportText(combination: Combination, vocabulary: Vocabulary): string {
  const { lead, joins, findings } = checkCombination(combination, vocabulary)
  const counts = lead.length / TICKS_PER_COUNT
  const ends = joins.switches ? 'switches by itself' : 'does not switch by itself'
  return [
    `${combination.title || 'Without a title'}: ${counts} counts, ${ends}`,
    ...findings.map(
      (finding) =>
        `${severityOf(finding).padEnd(5)} ${spotText(finding.spot)} ${finding.spot.layer}: ${findingText(finding)}`,
    ),
  ].join('\n')
}
