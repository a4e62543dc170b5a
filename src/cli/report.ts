import { otherSide, type Side } from '../core/body/side'
import type { Combination } from '../core/combination/combination'
import { checkCombination } from '../core/findings/check'
import type { Checked } from '../core/findings/checked'
import { type Finding, type Severity, severityOf } from '../core/findings/finding'
import { findingText, placeText, spotText } from '../core/findings/findingText'
import { spotIn } from '../core/findings/rule'
import { tempoRoom } from '../core/findings/tempoLimits'
import { hardestLoad } from '../core/load/load'
import type { Vocabulary } from '../core/moves/vocabulary'
import type { SheetMessage } from '../core/sheet/lines'
import { floorNeeds } from '../core/space/floorNeeds'
import { endsAway } from '../core/space/space'
import { TICKS_PER_COUNT, tick } from '../core/time/time'

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
  /** Findings that are left as they are, each with its reason. */
  readonly left: readonly (ReportedFinding & { readonly because: string })[]
  /** One a count of the lead side, in the order danced. */
  readonly load: readonly {
    readonly at: string
    readonly pass?: number
    readonly load: number
    readonly parts: readonly {
      readonly layer: string
      readonly own: number
      readonly share: number
    }[]
    readonly starts: number
    readonly turning: number
  }[]
  /** The highest tempo without a tempo finding; null where none is slow enough. */
  readonly maxTempo: number | null
  readonly tempoLimits: readonly {
    readonly tempo: number
    readonly at: string
    readonly text: string
  }[]
  readonly space: {
    /** Metres one dancer takes, by her middle: one round, and both sides one after the other. */
    readonly round: { readonly width: number; readonly depth: number }
    readonly bothSides: { readonly width: number; readonly depth: number }
    /** Farthest palm and the air beyond it, from the middle. */
    readonly arms: { readonly sideways: number; readonly deep: number }
    readonly room: { readonly width: number; readonly depth: number }
    readonly dancers: number
    readonly fit: number
  }
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
  /** Where the same is so again. */
  readonly also?: readonly { readonly at: string; readonly pass?: number }[]
  readonly text: string
}

const thousandths = (value: number): number => Math.round(value * 1000) / 1000 + 0

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
    findings: findings.map(reported),
    left: checked.left.map((finding) => ({ ...reported(finding), because: finding.because })),
    load: checked.loads.map(({ pass, at, total, parts, starts, turning }) => {
      const danced = lead.passes[pass]
      const spot = danced && spotIn(danced, tick(at), 'feet')
      return {
        at: spot ? placeText(spot) : '',
        ...(spot?.time !== undefined && { pass: spot.time }),
        load: thousandths(total),
        parts: parts.map(({ layer, own, share }) => ({ layer, own: thousandths(own), share })),
        starts: thousandths(starts),
        turning: thousandths(turning),
      }
    }),
    ...tempoReport(checked),
    space: spaceReport(checked),
    messages: messages.map(({ line, column, text }) => ({ line, column, text })),
  }
}

const reported = (finding: Finding): ReportedFinding => ({
  code: finding.code,
  kind: severityOf(finding),
  side: finding.side,
  at: placeText(finding.spot),
  ...(finding.spot.time !== undefined && { pass: finding.spot.time }),
  layer: finding.spot.layer,
  ...(finding.also && {
    also: finding.also.map(({ at, time }) => ({
      at: placeText({ ...finding.spot, at }),
      ...(time !== undefined && { pass: time }),
    })),
  }),
  text: findingText(finding),
})

function tempoReport(checked: Checked): Pick<Report, 'maxTempo' | 'tempoLimits'> {
  const { most, obstacles } = tempoRoom(checked)
  return {
    maxTempo: most ?? null,
    tempoLimits: obstacles.map(({ most: tempo, finding }) => ({
      tempo,
      at: placeText(finding.spot),
      text: findingText(finding),
    })),
  }
}

function spaceReport(checked: Checked): Report['space'] {
  const { joins, house } = checked
  const { round, shown, arms, fit } = floorNeeds(checked, 2, joins.switches)
  const sized = ({ width, depth }: typeof round) => ({
    width: thousandths(width),
    depth: thousandths(depth),
  })
  return {
    round: sized(round),
    bothSides: sized(shown.size),
    arms: { sideways: thousandths(arms.sideways), deep: thousandths(arms.deep) },
    room: house.room,
    dancers: house.dancers,
    fit,
  }
}

function travelOf({ lead }: Checked) {
  const { right, forward } = endsAway(lead, false)
  return { right: thousandths(right), forward: thousandths(forward) }
}

/** The report for people. */
export function reportText(combination: Combination, vocabulary: Vocabulary): string {
  const checked = checkCombination(combination, vocabulary)
  const { lead, joins, findings, left, loads } = checked
  const counts = lead.length / TICKS_PER_COUNT
  const { maxTempo } = tempoReport(checked)
  const { round, fit, dancers } = spaceReport(checked)
  const ends = combination.once
    ? 'danced once'
    : joins.switches
      ? 'switches by itself'
      : 'does not switch by itself'
  return [
    `${combination.title || 'Without a title'}: ${counts} counts, ${ends}`,
    ...findings.map(
      (finding) =>
        `${severityOf(finding).padEnd(5)} ${spotText(finding.spot)} ${finding.spot.layer}: ${findingText(finding)}`,
    ),
    ...left.map(
      ({ because, ...finding }) => `left  ${spotText(finding.spot)} ${finding.code}: ${because}`,
    ),
    `tempo ${maxTempo === null ? 'no tempo is slow enough' : `up to ${maxTempo}`}`,
    `load  ${hardestLoad(loads).toFixed(1)} at the hardest count`,
    `space ${round.width.toFixed(2)} x ${round.depth.toFixed(2)} m; ${fit < dancers ? `only ${fit} of ${dancers}` : `all ${dancers}`} dancers fit`,
  ].join('\n')
}
