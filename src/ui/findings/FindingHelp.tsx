import { Button, TextInput } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import type { Combination } from '../../core/combination/combination'
import { sharing } from '../../core/edits/share'
import type { Finding } from '../../core/findings/finding'
import type { Repair } from '../../core/repair/offers'
import { useServices } from '../stores/services'
import { type Session, showPreview } from '../stores/session'
import classes from './findings.module.css'
import { PreviewButton } from './PreviewButton'

interface HelpProps {
  readonly session: Session
  readonly document: Combination
  readonly finding: Finding
  /** Whether its repairs are scrolled to: the card of the move opens above them. */
  readonly comesIntoView: boolean
  readonly onLeave: (because: string) => void
}

/** What can be done about a finding: repairs, each seen in the braid before it is taken, and leaving it. */
export function FindingHelp({ session, document, finding, comesIntoView, onLeave }: HelpProps) {
  const { judge } = useServices()
  const [repairs, setRepairs] = useState<readonly Repair[]>()
  const [isLeaving, setLeaving] = useState(false)
  const [because, setBecause] = useState('')
  useEffect(() => {
    const stop = new AbortController()
    judge
      .ask('repairs', { combination: document, finding }, stop.signal)
      .then((found) =>
        setRepairs(
          found.map((repair) => ({ ...repair, changed: sharing(document, repair.changed) })),
        ),
      )
      .catch(() => {
        if (!stop.signal.aborted) setRepairs([])
      })
    return () => {
      stop.abort()
      showPreview(session, undefined)
    }
  }, [judge, document, finding, session])
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (comesIntoView && repairs) box.current?.scrollIntoView({ block: 'nearest' })
  }, [comesIntoView, repairs])
  return (
    <div className={classes.help} ref={box}>
      {repairs === undefined && <p className={classes.quiet}>Looking for repairs…</p>}
      {repairs?.map(({ label, changed }) => (
        <PreviewButton key={label} session={session} changed={changed} does={`repair: ${label}`}>
          {label}
        </PreviewButton>
      ))}
      {repairs?.length === 0 && (
        <p className={classes.quiet}>No small repair puts this right by itself.</p>
      )}
      {isLeaving ? (
        <form
          className={classes.leave}
          onSubmit={(event) => {
            event.preventDefault()
            if (because.trim()) onLeave(because.trim())
          }}
        >
          <TextInput
            aria-label="Ignore, because"
            placeholder="because …"
            size="xs"
            value={because}
            data-autofocus
            onChange={({ currentTarget }) => setBecause(currentTarget.value)}
          />
          <Button type="submit" size="compact-xs" disabled={!because.trim()}>
            Ignore
          </Button>
        </form>
      ) : (
        <button type="button" className={classes.again} onClick={() => setLeaving(true)}>
          Ignore, because …
        </button>
      )}
    </div>
  )
}
