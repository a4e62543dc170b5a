import { useEffect, useMemo, useState } from 'react'
import { sideWord } from '../../core/body/side'
import { walkCount } from '../../core/class/walk'
import { aloneFrom } from '../../core/combination/dancing'
import { layerWord } from '../../core/moves/vocabulary'
import type { Drill } from '../../core/plan/drill'
import { type DrillRound, type Materials, roundOf } from '../../core/plan/material'
import { clockText } from '../../core/time/clock'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { ClassDancer } from './ClassDancer'
import classes from './class.module.css'

interface SaidStepProps {
  readonly drill: Drill
  /** What is said. */
  readonly lines: readonly string[]
  readonly materials: Materials
  readonly isUnderWay: boolean
  /** Counts of a walk that are behind it. */
  readonly walked: number
}

/** A step without a count: it is said, held, waited through, or walked count by count. */
export function SaidStep({ drill, lines, materials, isUnderWay, walked }: SaidStepProps) {
  const round = useMemo(
    () => (drill.kind === 'walk' ? roundOf(drill, materials) : undefined),
    [drill, materials],
  )
  if (round)
    return (
      <Walk drill={drill} round={round} lines={lines} isUnderWay={isUnderWay} walked={walked} />
    )
  return (
    <div className={classes.saidFace}>
      {isUnderWay && drill.seconds !== undefined && (
        <TimeLeft key={drill.id} seconds={drill.seconds + drill.talk} />
      )}
      <ul className={classes.lines}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  )
}

/** How long it still lasts, as planned; nothing ends by itself. */
function TimeLeft({ seconds }: { readonly seconds: number }) {
  const [left, setLeft] = useState(seconds)
  useEffect(() => {
    const begun = performance.now()
    const every = setInterval(
      () => setLeft(Math.max(0, seconds - (performance.now() - begun) / 1000)),
      1000,
    )
    return () => clearInterval(every)
  }, [seconds])
  return (
    <p className={`display counts ${classes.giantTime}`} data-left>
      {clockText(left)}
    </p>
  )
}

/** A walk: the count it is at, and what starts on it. */
function Walk({
  drill,
  round,
  lines,
  isUnderWay,
  walked,
}: {
  readonly drill: Drill
  readonly round: DrillRound
  readonly lines: readonly string[]
  readonly isUnderWay: boolean
  readonly walked: number
}) {
  const side = drill.sides[0] ?? 'R'
  const { at, phrase, now, next } = useMemo(
    () => walkCount(drill, round, walked),
    [drill, round, walked],
  )
  return (
    <div className={classes.face}>
      <section className={classes.count} aria-label="Count">
        <p className={classes.where}>
          <b className={classes.side} data-side={side}>
            {sideWord[side]}
          </b>
          <span>{isUnderWay ? 'touch for the next count' : 'a walk: no clock'}</span>
          <span>{phrase}</span>
        </p>
        {isUnderWay ? (
          <>
            <p className={`display counts ${classes.giant}`} data-count data-walk>
              {now?.count}
            </p>
            {walked === 0 && <p className={`display ${classes.said}`}>ready, and</p>}
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
        material={round.material}
        layers={drill.layers}
        view={drill.stand === 'mirror' ? 'mirror' : 'behind'}
        isDancing={false}
        moment={() => ({
          dancing: aloneFrom(side),
          // Where the count has led.
          tick: isUnderWay ? at + TICKS_PER_COUNT - 1 : round.from,
          seam: undefined,
        })}
      />
      <section className={classes.now} aria-label="Now">
        {isUnderWay && now && (
          <>
            {now.feet.length > 0 && (
              <p className="layer-feet">
                <b>{layerWord.feet}</b> {now.feet.join('. ')}
              </p>
            )}
            {now.layers.map(({ layer, text }) => (
              <p key={layer + text} className={`layer-${layer}`}>
                <b>{layerWord[layer]}</b> {text}
              </p>
            ))}
            {now.feet.length === 0 && now.layers.length === 0 && <p>Hold.</p>}
            <p>weight: {now.weight}</p>
          </>
        )}
      </section>
      <section className={classes.next} aria-label="Next">
        {isUnderWay && next && (
          <p>
            then <span data-next>{next}</span>
          </p>
        )}
      </section>
    </div>
  )
}
