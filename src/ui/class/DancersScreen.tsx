import { useCallback, useEffect, useMemo, useState } from 'react'
import { useParams } from 'react-router'
import {
  afterNews,
  drillTold,
  followedDrill,
  followedTick,
  NOTHING_TOLD,
} from '../../core/following/followed'
import { ProblemPage } from '../parts/Problem'
import { type ClassClock, ClassFace } from './ClassFace'
import classes from './class.module.css'
import { hearFloor } from './dancersChannel'
import { finely } from './finely'
import { SaidStep } from './SaidStep'
import { useAwake } from './useAwake'

/** Who hears nothing for so long is told where to look. */
const SILENT_MS = 3000

/** What the dancers see on a second screen, in step with the floor: it knows nothing but what it is told. */
export function DancersScreen() {
  const { id = '' } = useParams()
  const [told, setTold] = useState(NOTHING_TOLD)
  const [isSilent, setSilent] = useState(false)
  useAwake(true)
  useEffect(() => {
    setTold(NOTHING_TOLD)
    const silent = setTimeout(() => setSilent(true), SILENT_MS)
    const stop = hearFloor(id, (news) => {
      clearTimeout(silent)
      setSilent(false)
      setTold((now) => afterNews(now, news))
    })
    return () => {
      clearTimeout(silent)
      stop()
    }
  }, [id])
  const { piece, drill } = drillTold(told) ?? {}
  const shown = useMemo(() => piece && drill && followedDrill(piece, drill), [piece, drill])
  const { going } = told
  const clock: ClassClock = useCallback(
    () => (shown && going?.t === 'run' ? followedTick(shown, going, finely()) : undefined),
    [shown, going],
  )
  if (!going || (going.t === 'run' && !shown))
    return isSilent ? (
      <ProblemPage
        what="Nothing is heard of this class."
        toDo="Open its floor, and the dancers’ view from there."
      />
    ) : (
      <p className="only-read">Opening…</p>
    )
  if (going.t === 'rest' && going.phase === 'over')
    return (
      <main className={classes.floor}>
        <p className={`display ${classes.overText}`}>{going.text}</p>
      </main>
    )
  const isRunning = going.t === 'run'
  return (
    <main className={classes.floor} data-phase={isRunning ? 'dancing' : going.phase}>
      <header className={classes.head}>
        <h1 className="display">{isRunning ? drill?.title : going.title}</h1>
        {shown && <p className="counts">{shown.speed}</p>}
      </header>
      {!isRunning && (going.phase === 'talk' || going.phase === 'walk') ? (
        <SaidStep
          lines={[]}
          until={going.until}
          walk={
            going.walk &&
            shown && {
              ...going.walk,
              dance: shown,
              layers: shown.layers,
              stand: shown.stand,
            }
          }
        />
      ) : (
        shown && (
          <ClassFace
            drill={shown}
            clock={clock}
            isDancing={isRunning}
            resting={isRunning ? '' : going.text}
          />
        )
      )}
    </main>
  )
}
