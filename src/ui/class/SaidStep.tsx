import { useEffect, useState } from 'react'
import type { Layer } from '../../core/body/layers'
import { sideWord } from '../../core/body/side'
import type { ShownDance } from '../../core/class/shownDrill'
import { aloneFrom } from '../../core/combination/dancing'
import type { WalkNews } from '../../core/following/news.schema'
import { layerWord } from '../../core/moves/vocabulary'
import type { Drill } from '../../core/plan/drill'
import { clockText } from '../../core/time/clock'
import { ClassDancer } from './ClassDancer'
import classes from './class.module.css'
import { finely } from './finely'

interface SaidStepProps {
  /** What is said. */
  readonly lines: readonly string[]
  /** When it is over as planned, in milliseconds since 1970; absent before it begins. */
  readonly until: number | undefined
  /** What is walked, and where that is. */
  readonly walk: Walked | undefined
  /** How it goes on, where it is touched. */
  readonly hint?: string
}

interface Walked extends WalkNews {
  readonly dance: ShownDance
  readonly layers: readonly Layer[]
  readonly stand: Drill['stand']
}

/** A step without a count: it is said, held, waited through, or walked count by count. */
export function SaidStep({ lines, until, walk, hint }: SaidStepProps) {
  if (walk) return <Walk walk={walk} lines={lines} hint={hint} />
  return (
    <div className={classes.saidFace}>
      {until !== undefined && <TimeLeft key={until} until={until} />}
      <ul className={classes.lines}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  )
}

/** How long it still lasts, as planned; nothing ends by itself. */
function TimeLeft({ until }: { readonly until: number }) {
  const secondsLeft = () => Math.max(0, (until - finely()) / 1000)
  const [left, setLeft] = useState(secondsLeft)
  useEffect(() => {
    const every = setInterval(() => setLeft(Math.max(0, (until - finely()) / 1000)), 1000)
    return () => clearInterval(every)
  }, [until])
  return (
    <p className={`display counts ${classes.giantTime}`} data-left>
      {clockText(left)}
    </p>
  )
}

/** A walk: the count it is at, and what starts on it. */
function Walk({
  walk,
  lines,
  hint,
}: {
  readonly walk: Walked
  readonly lines: readonly string[]
  readonly hint: string | undefined
}) {
  const { side, phrase, count, tick, weight, next, dance, layers, stand } = walk
  const isUnderWay = count !== undefined
  return (
    <div className={classes.face}>
      <section className={classes.count} aria-label="Count">
        <p className={classes.where}>
          <b className={classes.side} data-side={side}>
            {sideWord[side]}
          </b>
          {(hint || !isUnderWay) && <span>{isUnderWay ? hint : 'a walk: no clock'}</span>}
          <span>{phrase}</span>
        </p>
        {isUnderWay ? (
          <>
            <p className={`display counts ${classes.giant}`} data-count data-walk>
              {count}
            </p>
            {walk.isFirst && <p className={`display ${classes.said}`}>ready, and</p>}
          </>
        ) : (
          <div className={classes.rest}>
            {lines.map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
        )}
      </section>
      <ClassDancer
        dance={dance}
        layers={layers}
        view={stand === 'mirror' ? 'mirror' : 'behind'}
        isDancing={false}
        moment={() => ({ dancing: aloneFrom(side), tick, seam: undefined })}
      />
      <section className={classes.now} aria-label="Now">
        {isUnderWay && (
          <>
            {walk.lines.map(({ layer, text }) => (
              <p key={layer + text} className={`layer-${layer}`}>
                <b>{layerWord[layer]}</b> {text}
              </p>
            ))}
            {walk.lines.length === 0 && <p>Hold.</p>}
            <p>weight: {weight}</p>
          </>
        )}
      </section>
      <section className={classes.next} aria-label="Next">
        {next !== undefined && (
          <p>
            then <span data-next>{next}</span>
          </p>
        )}
      </section>
    </div>
  )
}
