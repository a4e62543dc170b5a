import { memo, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { otherSide, sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { leaveFinding, takeUpFinding } from '../../core/edits/leave'
import type { LeftFinding } from '../../core/findings/checked'
import type { Finding, Severity } from '../../core/findings/finding'
import { severityOf } from '../../core/findings/finding'
import { findingText, spotText } from '../../core/findings/findingText'
import { whoseFinding } from '../../core/findings/together'
import { layerWord } from '../../core/moves/vocabulary'
import { type SlipWith, slipIn } from '../../core/repair/slips'
import { checkedOf } from '../stores/checked'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { changeAll, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { FindingHelp } from './FindingHelp'
import classes from './findings.module.css'
import { goTo } from './goTo'

const SEVERITY_WORD: Readonly<Record<Severity, string>> = {
  fault: 'Can’t be danced',
  snag: 'Awkward',
  care: 'Take care',
  note: 'Good to know',
}
const SEVERITIES: readonly Severity[] = ['fault', 'snag', 'care', 'note']

function headline(findings: readonly Finding[]): string {
  const open = findings.filter((finding) => severityOf(finding) !== 'note').length
  if (open === 0) return 'Findings: nothing to fix'
  return open === 1 ? 'Findings: 1 to fix' : `Findings: ${open} to fix`
}

const findingKey = ({ code, whose, side, spot, events }: Finding): string =>
  `${code}${whose.join()}${side}${spot.pass}-${spot.at}-${spot.layer}-${events.join()}`

interface Group {
  readonly phrase: string
  readonly findings: readonly Finding[]
}

/** Phrase by phrase: the one with the worst first, and inside each the worst first. */
function grouped(findings: readonly Finding[]): readonly Group[] {
  const byPhrase = new Map<string, Finding[]>()
  for (const finding of findings) {
    const { phrase } = finding.spot
    byPhrase.set(phrase, [...(byPhrase.get(phrase) ?? []), finding])
  }
  const worst = ({ findings: list }: Group) =>
    Math.min(...list.map((finding) => SEVERITIES.indexOf(severityOf(finding))))
  return [...byPhrase]
    .map(([phrase, list]): Group => ({ phrase, findings: list }))
    .sort((a, b) => worst(a) - worst(b))
}

interface FindingsProps {
  readonly session: Session
  readonly onGo: () => void
}

/** What the core found, in sentences; a click goes to the place and offers what to do about it. */
export const Findings = memo(function Findings({ session, onGo }: FindingsProps) {
  // An edit is drawn in the braid first; the sentences may come a moment later.
  const document = useDeferredValue(useStore(session, documentOf))
  const { findings, left } = checkedOf(document)
  const brings = useSlips(document, findings)
  const groups = useMemo(() => {
    const under = new Set(brings.flatMap((one) => one.brings))
    return grouped(findings.filter((finding) => !under.has(slipIn(finding))))
  }, [findings, brings])
  const [opened, setOpened] = useState<string>()
  const firstFault = findings.find((finding) => severityOf(finding) === 'fault')
  const openKey = opened ?? (firstFault && findingKey(firstFault))
  return (
    <section aria-label="Findings" className={classes.findings}>
      <h2 className={`display ${classes.title}`}>{headline(findings)}</h2>
      <ul className={classes.list}>
        {groups.map(({ phrase, findings: list }) => (
          <li key={phrase}>
            <h3 className={classes.phrase}>{phrase}</h3>
            <ul className={classes.group}>
              {list.map((finding) => (
                <FindingItem
                  key={findingKey(finding)}
                  session={session}
                  document={document}
                  finding={finding}
                  isOpen={findingKey(finding) === openKey}
                  isChosen={findingKey(finding) === opened}
                  brings={findings.filter((one) =>
                    brings
                      .find(({ slip }) => slip === slipIn(finding))
                      ?.brings.includes(slipIn(one)),
                  )}
                  onOpen={() => {
                    setOpened(findingKey(finding))
                    goTo(session, document, finding)
                    onGo()
                  }}
                />
              ))}
            </ul>
          </li>
        ))}
        {findings.length === 0 && left.length === 0 && (
          <li className={classes.empty}>
            Nothing to check yet. Put the feet down first: pick a count and type “step”.
          </li>
        )}
        {left.length > 0 && (
          <li>
            <h3 className={classes.phrase}>Ignored</h3>
            <ul className={classes.group}>
              {left.map((finding) => (
                <LeftItem key={findingKey(finding)} session={session} finding={finding} />
              ))}
            </ul>
          </li>
        )}
      </ul>
    </section>
  )
})

interface ItemProps {
  readonly session: Session
  readonly document: Combination
  readonly finding: Finding
  readonly isOpen: boolean
  /** Opened by a hand, and not because it is the first. */
  readonly isChosen: boolean
  /** Slips that are gone when this one is mended. */
  readonly brings: readonly Finding[]
  readonly onOpen: () => void
}

/** Which slips another one brings about, thought through beside the page; none until it is known. */
function useSlips(document: Combination, findings: readonly Finding[]): readonly SlipWith[] {
  const { judge } = useServices()
  const [known, setKnown] = useState<{ of: Combination; slips: readonly SlipWith[] }>()
  const isAsked = findings.filter((finding) => severityOf(finding) === 'fault').length > 1
  useEffect(() => {
    if (!isAsked) return
    const stop = new AbortController()
    judge
      .ask('slips', { combination: document }, stop.signal)
      .then((slips) => setKnown({ of: document, slips }))
      .catch(() => undefined)
    return () => stop.abort()
  }, [judge, document, isAsked])
  return known?.of === document ? known.slips : NONE
}

const NONE: readonly SlipWith[] = []

function FindingItem({ session, document, finding, isOpen, isChosen, brings, onOpen }: ItemProps) {
  const severity = severityOf(finding)
  const { spot } = finding
  const other = sideWord[otherSide[document.lead]]
  const whose = whoseFinding(finding, document)
  return (
    <li className={classes.item} data-severity={severity} data-code={finding.code}>
      <button type="button" className={classes.finding} aria-expanded={isOpen} onClick={onOpen}>
        <span className={classes.where}>
          <b className="counts">{spotText(spot)}</b> {layerWord[spot.layer].toLowerCase()}
          {whose && <i className={classes.side}>{whose}</i>}
          {finding.side === 'other' && <i className={classes.side}>{other} side</i>}
          <span className={classes.severity}>{SEVERITY_WORD[severity]}</span>
        </span>
        <span>{findingText(finding, houseNow.getState().rules.units)}</span>
        {brings.length > 0 && (
          <span className={classes.brings}>
            Mend this, and {brings.map(({ spot: there }) => spotText(there)).join(' and ')}{' '}
            {brings.length === 1 ? 'is' : 'are'} right too.
          </span>
        )}
      </button>
      {isOpen && (
        <FindingHelp
          session={session}
          document={document}
          finding={finding}
          comesIntoView={isChosen}
          onLeave={(because) =>
            changeAll(session, 'leave a finding', leaveFinding(finding, because))
          }
        />
      )}
    </li>
  )
}

function LeftItem({ session, finding }: { session: Session; finding: LeftFinding }) {
  return (
    <li className={classes.item} data-severity="left">
      <p className={classes.left}>
        <span className={classes.where}>
          <b className="counts">{spotText(finding.spot)}</b>{' '}
          {layerWord[finding.spot.layer].toLowerCase()}
        </span>
        {findingText(finding, houseNow.getState().rules.units)} <em>Because: {finding.because}</em>{' '}
        <button
          type="button"
          className={classes.again}
          onClick={() => changeAll(session, 'take a finding up again', takeUpFinding(finding))}
        >
          Show it again
        </button>
      </p>
    </li>
  )
}
