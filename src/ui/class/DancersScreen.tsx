import { dequal } from 'dequal'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { speechSeconds } from '../../audio/speech'
import { drillDanceOf } from '../../core/class/drillDance'
import type { SoundChoice } from '../../core/class/soundChoice'
import { drillOf, type UnderWay } from '../../core/class/underWay'
import { isCounted, speedText } from '../../core/plan/drill'
import { type Materials, roundOf } from '../../core/plan/material'
import { drillTitle } from '../../core/plan/totals'
import { inWords, ProblemPage } from '../parts/Problem'
import { type ClassClock, ClassFace } from './ClassFace'
import classes from './class.module.css'
import { channelOf, type DancersNews } from './dancersChannel'
import { finely } from './finely'
import { SaidStep } from './SaidStep'
import { useAwake } from './useAwake'
import { useClassRecord } from './useClass'

/** What the dancers see on a second screen, in step with the floor. */
export function DancersScreen() {
  const { id = '' } = useParams()
  const { error, ready } = useClassRecord(id)
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  if (!ready.opened)
    return (
      <ProblemPage
        what="This class is not here."
        toDo="Open the dancers’ view from the floor again."
      />
    )
  return (
    <Dancers
      first={ready.opened.note.session}
      materials={ready.materials}
      choice={ready.planning.sound.read()}
    />
  )
}

/** So long after the last sound nothing is danced any more, in no window. */
const LAST_HEARD_MS = 600

/** Nothing sounds here, so nobody’s own voice matters. */
const SPEECH = speechSeconds()

function Dancers({
  first,
  materials,
  choice,
}: {
  readonly first: UnderWay
  readonly materials: Materials
  readonly choice: SoundChoice
}) {
  const [session, setSession] = useState(first)
  const [key, setKey] = useState<string>()
  const news = useRef<DancersNews['now']>(undefined)
  useAwake(true)
  useEffect(() => {
    const channel = channelOf(first.id)
    channel.onmessage = ({ data }: MessageEvent<DancersNews>) => {
      // Two windows of a class both tell; the one that dances is heard.
      const heard = news.current
      if (!data.now && heard && finely() - heard.when < LAST_HEARD_MS) return
      news.current = data.now
      setKey(data.now && JSON.stringify([data.now.drill, data.now.choice]))
      setSession((now) => (dequal(now, data.session) ? now : data.session))
    }
    return () => channel.close()
  }, [first.id])
  const drill = drillOf(session)
  const danced = useMemo(
    () =>
      key === undefined
        ? drillDanceOf(drill, materials, choice, SPEECH)
        : drillDanceOf(news.current?.drill, materials, news.current?.choice ?? choice, SPEECH),
    [key, drill, materials, choice],
  )
  const clock: ClassClock = useCallback(() => {
    const heard = news.current
    if (!heard || !danced) return undefined
    // On from what was last told, by the tempo that sounds.
    const { time, length } = danced.performance
    const tick = time.tickAt(time.secondsAt(heard.tick) + (finely() - heard.when) / 1000)
    return tick < length ? tick : undefined
  }, [danced])
  if (drill && !isCounted(drill))
    return (
      <main className={classes.floor} data-phase={session.phase}>
        <header className={classes.head}>
          <h1 className="display">{drillTitle(drill, materials)}</h1>
        </header>
        <SaidStep
          drill={drill}
          lines={[]}
          materials={materials}
          isUnderWay={session.phase === 'dancing'}
          walked={session.walked}
        />
      </main>
    )
  if (!drill || !danced)
    return (
      <main className={classes.floor}>
        <p className={`display ${classes.overText}`}>Well danced.</p>
      </main>
    )
  return (
    <main className={classes.floor} data-phase={session.phase}>
      <header className={classes.head}>
        <h1 className="display">{drillTitle(drill, materials)}</h1>
        <p className="counts">{speedText(drill)}</p>
      </header>
      <ClassFace
        danced={danced}
        clock={clock}
        isDancing={key !== undefined && roundOf(drill, materials) !== undefined}
        view="behind"
        resting={session.phase === 'asking' ? 'Breathe.' : 'Ready.'}
      />
    </main>
  )
}
