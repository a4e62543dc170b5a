import { Button, SegmentedControl } from '@mantine/core'
import { IconArrowLeft } from '@tabler/icons-react'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import { chapterText, chapterVtt } from '../../core/lesson/chapters'
import { beginFilming, chaptersFilmed, type Filmed, stepOf, toStep } from '../../core/lesson/filmed'
import { type LessonStep, lessonScript, standWords } from '../../core/lesson/script'
import { pageDataOf } from '../../core/practice/makePage'
import { clockText } from '../../core/time/clock'
import type { Planning } from '../../storage/planning'
import { useAwake } from '../class/useAwake'
import { download, fileName } from '../parts/files'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import type { ScreenKey } from '../parts/keys'
import { StoredCombination } from '../parts/StoredCombination'
import { useScreenKeys } from '../parts/useScreenKeys'
import { today } from '../planning/today'
import { usePlanning } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { words } from '../stores/words'
import classes from './lesson.module.css'

/** A lesson before the camera: what to show, how to stand, what to say, one step after the other. */
export function LessonScreen() {
  const planning = usePlanning()
  if (!planning) return <p className="only-read">Opening…</p>
  return (
    <StoredCombination>
      {(combination) => <Lesson combination={combination} planning={planning} />}
    </StoredCombination>
  )
}

function Lesson({
  combination,
  planning,
}: {
  readonly combination: Combination
  readonly planning: Planning
}) {
  const { rules } = useStore(houseNow, (s) => s)
  const { vocabulary } = useStore(words, (s) => s)
  const [filmed, setFilmed] = useState(() => planning.filmed.read(combination.id))
  const [stand, setStand] = useState(filmed?.stand ?? 'mirror')
  // What was filmed before is looked at first, not gone on with.
  const [isOn, setOn] = useState(filmed !== undefined && filmed.ended === undefined)
  useAwake(isOn)
  const script = useMemo(() => {
    const { chunks } = pageDataOf(combination, vocabulary, rules, { made: today() })
    return lessonScript({ title: combination.title, lead: combination.lead, chunks, stand })
  }, [combination, vocabulary, rules, stand])
  const keep = (next: Filmed) => {
    planning.filmed.write(next)
    setFilmed(next)
  }
  const at = filmed && isOn ? Math.min(stepOf(filmed), script.length - 1) : 0
  const begin = () => {
    keep(beginFilming(combination.id, stand, Date.now()))
    setOn(true)
  }
  const go = (by: 1 | -1) => {
    if (!filmed || !isOn) {
      if (by > 0 && !filmed) begin()
      return
    }
    const to = at + by
    if (to >= script.length) {
      keep({ ...filmed, ended: Date.now() })
      setOn(false)
    } else if (to >= 0) keep(toStep(filmed, to, Date.now()))
  }
  const table: readonly ScreenKey[] = [
    { on: [' ', 'Enter', 'PageDown', 'ArrowRight'], does: 'the next step', run: () => go(1) },
    { on: ['PageUp', 'ArrowLeft'], does: 'the step before, filmed again', run: () => go(-1) },
  ]
  const keys = useScreenKeys(table)
  const step = script[at]
  const next = script[at + 1]
  return (
    <main className={classes.screen}>
      <header className={classes.head}>
        <Link to={`/combination/${combination.id}/teach`} aria-label="Back to Teach">
          <IconArrowLeft size={22} />
        </Link>
        <h1 className="display">{combination.title || 'Lesson'}, on film</h1>
        {isOn && filmed && (
          <p className="counts">
            {at + 1} of {script.length} · <Elapsed since={filmed.begun} />
          </p>
        )}
        <KeysButton onClick={keys.onOpen} />
        <KeysHelp {...keys} />
      </header>
      {isOn && step ? (
        <>
          <button type="button" className={classes.step} onClick={() => go(1)}>
            <Step step={step} />
            <span className={classes.next}>
              {next ? `then: ${next.title}` : 'that is the end'} · touch, or a pedal
            </span>
          </button>
          <p className={classes.row}>
            <Button variant="default" size="md" disabled={at === 0} onClick={() => go(-1)}>
              The step before, again
            </Button>
            <Button
              variant="default"
              size="md"
              onClick={() => {
                if (filmed) keep({ ...filmed, ended: Date.now() })
                setOn(false)
              }}
            >
              The camera is off
            </Button>
          </p>
        </>
      ) : (
        <div className={classes.body}>
          {filmed && <Chapters filmed={filmed} script={script} title={combination.title} />}
          <section aria-label="The script">
            <h2>The script</h2>
            <p className={classes.row}>
              <SegmentedControl
                aria-label="How you stand"
                value={stand}
                onChange={(value) => setStand(value === 'back' ? 'back' : 'mirror')}
                data={[
                  { value: 'mirror', label: 'their mirror' },
                  { value: 'back', label: 'back to them' },
                ]}
              />
              <Button onClick={begin}>The camera runs: begin</Button>
            </p>
            <ol className={classes.script}>
              {script.map((one, i) => (
                // The same step may be there twice.
                // biome-ignore lint/suspicious/noArrayIndexKey: a script has its order
                <li key={i} data-kind={one.kind}>
                  <b>{one.title}</b>
                  {one.kind !== 'pause' && <i>{standWords(one.stand)}</i>}
                  {one.say.map((line) => (
                    <span key={line}>{line}</span>
                  ))}
                </li>
              ))}
            </ol>
          </section>
        </div>
      )}
    </main>
  )
}

/** A step as it is read from three metres away. */
const Step = ({ step: { kind, title, stand, say } }: { readonly step: LessonStep }) => (
  <>
    <span className={`display ${classes.title}`}>{title}</span>
    {kind !== 'pause' && <span className={classes.stand}>{standWords(stand)}</span>}
    {say.map((line) => (
      <span key={line} className={classes.line} data-kind={kind}>
        {line}
      </span>
    ))}
  </>
)

function Elapsed({ since }: { readonly since: number }) {
  const [now, setNow] = useState(Date.now())
  useEffect(() => {
    const every = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(every)
  }, [])
  return <>{clockText(Math.max(0, (now - since) / 1000))}</>
}

/** Where each part of what was filmed begins, to be put under it. */
function Chapters({
  filmed,
  script,
  title,
}: {
  readonly filmed: Filmed
  readonly script: readonly LessonStep[]
  readonly title: string
}) {
  const [said, say] = useState('')
  const chapters = chaptersFilmed(filmed, script)
  const text = chapterText(chapters)
  const last = filmed.ended ?? filmed.marks.at(-1)?.at ?? filmed.begun
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text)
      say('Copied.')
    } catch {
      say('This browser keeps its clipboard to itself: select the lines and copy them.')
    }
  }
  return (
    <section aria-label="Chapters" className={classes.chapters}>
      <h2>Chapters of what was filmed</h2>
      {chapters.length === 0 ? (
        <p>
          Chapters are three at least, ten seconds apart: go through the script while the camera
          runs.
        </p>
      ) : (
        <>
          <pre>{text}</pre>
          <p className={classes.row}>
            <Button variant="default" onClick={() => void copy()}>
              Copy
            </Button>
            <Button
              variant="default"
              onClick={() =>
                download(
                  fileName(title, '-chapters.vtt'),
                  chapterVtt(chapters, (last - filmed.begun) / 1000),
                  'text/vtt',
                )
              }
            >
              Save as a file
            </Button>
            <span role="status">{said}</span>
          </p>
          <p>They count from when the camera began. Cut off what comes before in your film.</p>
        </>
      )}
    </section>
  )
}
