import { type ReactNode, useEffect, useRef, useState } from 'react'
import { otherSide, sideWord } from '../../core/body/side'
import { type DrillDance, wordsAt } from '../../core/class/drillDance'
import { type ClassMoment, momentOf } from '../../core/class/drillProgram'
import { layerWord } from '../../core/moves/vocabulary'
import type { View } from '../../core/pose/views'
import type { CountWords } from '../../core/teaching/say'
import { ClassDancer } from './ClassDancer'
import classes from './class.module.css'
import { finely } from './finely'

/** Where the music is: which part, and ticks into it. */
export type ClassClock = () => { readonly index: number; readonly at: number } | undefined

interface ClassFaceProps {
  readonly danced: DrillDance
  readonly clock: ClassClock
  readonly isDancing: boolean
  readonly view: View
  /** Shown while nothing sounds. */
  readonly resting: ReactNode
  readonly onSaid?: (text: string) => void
}

interface ShownMoment extends ClassMoment {
  readonly index: number
  readonly words: CountWords | undefined
}

/** What is seen from three metres away: the count, what starts now, what comes, the figure. */
export function ClassFace({ danced, clock, isDancing, view, resting, onSaid }: ClassFaceProps) {
  const { round, parts, drill } = danced
  const [shown, setShown] = useState<ShownMoment>()
  const bar = useRef<HTMLDivElement>(null)
  const said = useRef(onSaid)
  said.current = onSaid

  useEffect(() => {
    if (!isDancing) {
      setShown(undefined)
      return
    }
    let frame = 0
    let known = ''
    let heard = ''
    const look = () => {
      frame = requestAnimationFrame(look)
      const now = clock()
      const part = now && parts[now.index]
      if (!now || !part) return
      if (bar.current) {
        bar.current.style.width = `${(100 * now.at) / part.length}%`
        // Where it is and when that was, for whoever asks.
        bar.current.dataset.at = [now.index, now.at.toFixed(3), finely().toFixed(1)].join(' ')
      }
      const moment = momentOf(parts, now.index, now.at)
      // Drawn again with each count or call, not with each frame.
      const key = [
        now.index,
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
      setShown({ ...moment, index: now.index, words: wordsAt(danced, now.index, now.at) })
    }
    look()
    return () => cancelAnimationFrame(frame)
  }, [isDancing, clock, parts, danced])

  const part = parts[shown?.index ?? 0]
  const side = part?.side ?? drill.sides[0] ?? 'R'
  // In a round of moves every second phrase is danced to the other side.
  const shownSide = shown?.isMirrored ? otherSide[side] : side
  return (
    <div className={classes.face}>
      <section className={classes.count} aria-label="Count">
        <p className={classes.where}>
          {(!drill.moves || isDancing) && (
            <b className={classes.side} data-side={shownSide}>
              {sideWord[shownSide]}
            </b>
          )}
          <span className="counts">
            {part && part.round > 0 ? `round ${part.round} of ${part.rounds}` : roundsText(drill)}
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
            <p className={`display ${classes.said}`} data-said>
              {shown?.said}
            </p>
          </>
        ) : (
          <div className={classes.rest}>{resting}</div>
        )}
      </section>
      <ClassDancer
        material={round.material}
        layers={drill.layers}
        view={view}
        isDancing={isDancing}
        moment={() => {
          const now = clock()
          const at = now && parts[now.index]
          if (!now || !at) return { side, at: round.from }
          return { side: at.side, at: (at.dance?.from ?? round.from - at.length) + now.at }
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

const roundsText = ({ repeats, moves }: DrillDance['drill']): string =>
  `${repeats} ${repeats === 1 ? 'round' : 'rounds'}${moves ? '' : ' a side'}`
