import { type ReactNode, useEffect, useRef, useState } from 'react'
import { otherSide, sideWord } from '../../core/body/side'
import { type ShownDrill, wordsAt } from '../../core/class/shownDrill'
import { aloneFrom } from '../../core/combination/dancing'
import { layerWord } from '../../core/moves/vocabulary'
import type { Moment } from '../../core/performance/performance'
import type { CountWords } from '../../core/teaching/say'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { eachFrame } from '../parts/eachFrame'
import { ClassDancer } from './ClassDancer'
import classes from './class.module.css'
import { finely } from './finely'

/** The tick of the performance that is heard now. */
export type ClassClock = () => number | undefined

interface ClassFaceProps {
  readonly drill: ShownDrill
  readonly clock: ClassClock
  readonly isDancing: boolean
  /** Shown while nothing sounds. */
  readonly resting: ReactNode
  readonly onSaid?: (text: string) => void
}

interface ShownMoment extends Moment {
  readonly words: CountWords | undefined
}

/** What is seen from three metres away: the count, what starts now, what comes, the figure. */
export function ClassFace({ drill, clock, isDancing, resting, onSaid }: ClassFaceProps) {
  const { performance: performed, placeAt } = drill
  const [shown, setShown] = useState<ShownMoment>()
  const bar = useRef<HTMLDivElement>(null)
  const said = useRef(onSaid)
  said.current = onSaid

  useEffect(() => {
    if (!isDancing) {
      setShown(undefined)
      return
    }
    let known = ''
    let heard = ''
    return eachFrame(() => {
      const now = clock()
      if (now === undefined) return
      const moment = performed.momentAt(now)
      if (bar.current) {
        bar.current.style.width = `${(100 * moment.at) / moment.segment.length}%`
        // Where it is and when that was, for whoever asks.
        bar.current.dataset.at = [moment.index, moment.at.toFixed(3), finely().toFixed(1)].join(' ')
      }
      // Drawn again with each count or call, not with each frame.
      const key = [
        moment.index,
        moment.count,
        moment.phrase,
        moment.said,
        moment.next?.text,
        moment.next?.counts,
      ].join('|')
      if (key === known) return
      known = key
      if (moment.said !== heard) {
        heard = moment.said
        if (heard) said.current?.(heard)
      }
      setShown({ ...moment, words: wordsAt(drill, moment) })
    })
  }, [isDancing, clock, performed, drill])

  const segment = performed.segments[shown?.index ?? 0]
  const dancing = segment?.dancing ?? aloneFrom(drill.lead ?? 'R')
  const { side } = dancing
  // In a round of moves every second phrase is danced to the other side.
  const shownSide = shown?.isMirrored ? otherSide[side] : side
  return (
    <div className={classes.face} data-song={placeAt !== undefined}>
      <section className={classes.count} aria-label="Count">
        <p className={classes.where}>
          {(drill.lead || isDancing) && (
            <b className={classes.side} data-side={shownSide}>
              {sideWord[shownSide]}
            </b>
          )}
          <span className="counts">
            {segment && segment.round > 0
              ? `round ${segment.round} of ${segment.rounds}`
              : drill.times}
          </span>
          <span>{shown?.phrase}</span>
        </p>
        {isDancing ? (
          <>
            <p className={`display counts ${classes.giant}`} data-count data-in={shown?.isCountIn}>
              {shown?.count}
            </p>
            <div className={classes.pass}>
              <div ref={bar} />
            </div>
            {placeAt && shown && !shown.isCountIn && (
              <p className={`counts ${classes.place}`} data-place>
                {placeAt(shown.tick)}
              </p>
            )}
            <p className={`display ${classes.said}`} data-said>
              {shown?.said}
            </p>
          </>
        ) : (
          <div className={classes.rest}>{resting}</div>
        )}
      </section>
      <ClassDancer
        dance={drill}
        layers={drill.layers}
        view={
          drill.stand !== 'mirror' || (drill.isShown && (segment?.round ?? 0) > 1)
            ? 'behind'
            : 'mirror'
        }
        isDancing={isDancing}
        ahead={
          isDancing && shown
            ? {
                dancing: shown.dancing,
                tick: (Math.floor(shown.tick / TICKS_PER_COUNT) + 1) * TICKS_PER_COUNT,
              }
            : undefined
        }
        moment={() => {
          const now = clock()
          return now === undefined
            ? { dancing, tick: drill.start, seam: undefined }
            : performed.danceAt(now)
        }}
      />
      <section className={classes.now} aria-label="Now">
        {shown?.words && shown.words.feet.length > 0 && (
          <p className="layer-feet">
            <b>{layerWord.feet}</b> {shown.words.feet.join('. ')}
          </p>
        )}
        {shown?.words?.layers.map(({ layer, text }) => (
          <p key={layer + text} className={`layer-${layer}`}>
            <b>{layerWord[layer]}</b> {text}
          </p>
        ))}
      </section>
      <section className={classes.next} aria-label="Next">
        {shown?.next ? (
          <p>
            in <b className="counts">{shown.next.counts}</b>{' '}
            <span data-next>{shown.next.text}</span>
          </p>
        ) : (
          <p>&nbsp;</p>
        )}
      </section>
    </div>
  )
}
