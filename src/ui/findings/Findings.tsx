import { memo, useDeferredValue } from 'react'
import { otherSide } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Finding, Severity } from '../../core/findings/finding'
import { severityOf } from '../../core/findings/finding'
import { findingText, spotText } from '../../core/findings/findingText'
import { layerWord } from '../../core/moves/vocabulary'
import { slotAt } from '../../core/time/time'
import { checkedOf } from '../stores/checked'
import { documentOf, flip, type Session, select } from '../stores/session'
import { useStore } from '../stores/store'
import classes from './findings.module.css'

const SEVERITY_WORD: Readonly<Record<Severity, string>> = {
  fault: 'Can’t be danced',
  snag: 'Will catch',
  care: 'Take care',
  note: 'Good to know',
}

function headline(findings: readonly Finding[]): string {
  const open = findings.filter((finding) => severityOf(finding) !== 'note').length
  if (open === 0) return 'Nothing to smooth'
  return open === 1 ? '1 thing to smooth' : `${open} things to smooth`
}

/** Goes to the place of a finding, on the side it stands on. */
function goTo(session: Session, combination: Combination, finding: Finding): void {
  const { lead } = combination
  const side = finding.side === 'lead' ? lead : otherSide[lead]
  const state = session.get()
  if (state.shown !== 'both' && (state.shown === 'lead') !== (finding.side === 'lead'))
    flip(session)
  const { at, layer, pass } = finding.spot
  select(session, { side, pass, layer, at, length: slotAt(at), event: finding.events[0] })
}

interface FindingsProps {
  readonly session: Session
  readonly onGo: () => void
}

/** What the core found, in sentences; a click goes to the place. */
export const Findings = memo(function Findings({ session, onGo }: FindingsProps) {
  // An edit is drawn in the braid first; the sentences may come a moment later.
  const document = useDeferredValue(useStore(session, documentOf))
  const { findings } = checkedOf(document)
  return (
    <section aria-label="Findings" className={classes.findings}>
      <h2 className={`display ${classes.title}`}>{headline(findings)}</h2>
      <ul className={classes.list}>
        {findings.map((finding) => {
          const severity = severityOf(finding)
          const { spot } = finding
          return (
            <li
              key={`${finding.code}${finding.side}${spot.pass}-${spot.at}-${finding.events.join()}`}
            >
              <button
                type="button"
                className={classes.finding}
                data-severity={severity}
                onClick={() => {
                  goTo(session, document, finding)
                  onGo()
                }}
              >
                <span className={classes.where}>
                  <b className="counts">{spotText(spot)}</b> {layerWord[spot.layer].toLowerCase()}
                  <span className={classes.severity}>{SEVERITY_WORD[severity]}</span>
                </span>
                <span>{findingText(finding)}</span>
              </button>
            </li>
          )
        })}
        {findings.length === 0 && (
          <li className={classes.empty}>
            Nothing to check yet. Put the feet down first: pick a count and type “step”.
          </li>
        )}
      </ul>
    </section>
  )
})
