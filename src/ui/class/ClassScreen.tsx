import { Drawer } from '@mantine/core'
import { useFullscreenDocument } from '@mantine/hooks'
import {
  IconAdjustments,
  IconMaximize,
  IconScreenShare,
  IconUsersGroup,
  IconVideo,
} from '@tabler/icons-react'
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import { useStore } from 'zustand'
import { speechSeconds } from '../../audio/speech'
import { choiceAfter, drillDanceOf, shownDrill } from '../../core/class/drillDance'
import { type ClassStep, stepsFor, stepsFrom } from '../../core/class/keys'
import {
  cutBy,
  drillOf,
  lateBy,
  nextRun,
  restOf,
  secondsLeft,
  wordsOfClass,
} from '../../core/class/underWay'
import { saidMs, walkTold } from '../../core/following/tell'
import { atSpeedOf, type Drill, isCounted } from '../../core/plan/drill'
import { drillTitle } from '../../core/plan/totals'
import { nextPart, partsToDance } from '../../core/routine/drillParts'
import type { Planning, UnderWayNote } from '../../storage/planning'
import { KeysHelp } from '../parts/KeysHelp'
import { listed } from '../parts/locale'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { Troubles } from '../parts/Troubles'
import { useScreenKeys } from '../parts/useScreenKeys'
import type { ClassMaterials } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { ClassFace } from './ClassFace'
import type { ClassCamera } from './ClassFilm'
import { ClassHead, Tool } from './ClassHead'
import { ClassZones } from './ClassZones'
import classes from './class.module.css'
import { type Asked, capFor, classKeys } from './classKeys'
import { DrillWords } from './DrillWords'
import { useBroadcast } from './dancersChannel'
import { useFollowers } from './followers'
import { SaidStep } from './SaidStep'
import { SongParts } from './SongParts'
import { Tap } from './Tap'
import { useAwake } from './useAwake'
import { useBegun } from './useBegun'
import { useCaller, useSound } from './useCaller'
import { useClass, useClassRecord } from './useClass'
import { useClassMusic } from './useClassMusic'
import { useSongPlace } from './useSongPlace'
import { useTelling } from './useTelling'

const ClassFilm = lazy(async () => ({ default: (await import('./ClassFilm')).ClassFilm }))
const FollowPanel = lazy(async () => ({ default: (await import('./FollowPanel')).FollowPanel }))
const SoundPanel = lazy(async () => ({ default: (await import('./SoundPanel')).SoundPanel }))

/** The class as it is given. */
export function ClassScreen() {
  const { id = '' } = useParams()
  const { error, ready } = useClassRecord(id)
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  if (!ready.opened)
    return (
      <main>
        <Problem
          what="This class is not here, or its plan is gone."
          toDo="Go to Plans and begin the class from its plan."
        />
        <Link to="/plans">Plans</Link>
      </main>
    )
  return <Floor first={ready.opened.note} planning={ready.planning} materials={ready.materials} />
}

/** A class later than this is offered what to leave out, in seconds (teaching 10.3). */
const LATE = 120
/** After these a drill goes on in its song from where it is. */
const GOES_ON: ReadonlySet<ClassStep['kind']> = new Set(['pause', 'slower', 'faster'])
const NO_CUT: ReturnType<typeof cutBy> = { drills: [], cut: [], saved: 0 }

interface FloorProps {
  readonly first: UnderWayNote
  readonly planning: Planning
  readonly materials: ClassMaterials
}

function Floor({ first, planning, materials }: FloorProps) {
  const { deck } = useServices()
  const halted = useRef(() => {})
  const { session, act, now } = useClass(first, planning, materials, () => halted.current())
  const sound = useSound(planning, deck)
  const { choice, own } = sound
  const speech = useMemo(() => speechSeconds(own), [own])
  const [isOpen, setOpen] = useState(false)
  const [isLetIn, setLetIn] = useState(false)
  const [isFilmed, setFilmed] = useState(false)
  const camera = useRef<ClassCamera>(null)
  const [left, setLeft] = useState(secondsLeft(session, Date.now()))
  const [late, setLate] = useState(0)
  const { toggle } = useFullscreenDocument()
  const drill = drillOf(session)
  // What is shown while nothing sounds is all of the drill, from its beginning.
  const whole = useMemo(
    () => drillDanceOf(drill, materials, choice, speech),
    [drill, materials, choice, speech],
  )
  const [playing, setPlaying] = useState<typeof whole>()
  const place = useSongPlace(drill, materials.laidSongs)
  /** Goes on with what is left of a drill, once it is known how. */
  const again = useRef(() => {})
  const caller = useCaller(deck, {
    onRound: (side) => act({ kind: 'round', side }),
    onFinished: () => {
      setPlaying(undefined)
      if (place.stopped(drillOf(now.current)?.id)) {
        act({ kind: 'pause' })
        return
      }
      if (act({ kind: 'finished' }).phase === 'dancing') again.current()
    },
  })
  const isDancing = session.phase === 'dancing'
  const music = useClassMusic(session, materials)
  useAwake(session.phase !== 'over')
  useEffect(() => {
    const tick = () => {
      setLeft(secondsLeft(now.current, Date.now()))
      setLate(lateBy(now.current, Date.now(), materials))
    }
    tick()
    const every = setInterval(tick, 1000)
    return () => clearInterval(every)
  }, [now, materials])

  const start = useCallback(() => {
    const started = act({ kind: 'start', now: Date.now() })
    const step = drillOf(started)
    // What is said, walked or waited through has no sound.
    if (step && !isCounted(step)) return
    const before = started.drills[started.index - 1]
    const rest = restOf(started)
    const part = rest && place.next(rest)
    const danced = drillDanceOf(part?.drill, materials, choiceAfter(choice, before), speech)
    if (!danced) {
      // Nothing of it is left, or it can't be danced any more.
      act({ kind: 'next' })
      return
    }
    setPlaying(danced)
    caller.play(danced, part?.isWhole ?? true)
  }, [act, caller, materials, choice, speech, place.next])
  again.current = start
  const halt = useCallback(() => {
    place.halted(drillOf(now.current), caller.second())
    caller.stop()
    setPlaying(undefined)
  }, [caller, now, place.halted])

  halted.current = halt
  const begin = useCallback(() => {
    start()
    return caller.playing()?.performance
  }, [start, caller])

  /** What sounds goes on at another tempo. */
  const retune = useCallback(
    (asked: Drill | undefined) => {
      const danced = caller.playing()
      const tuned =
        danced &&
        asked &&
        drillDanceOf(atSpeedOf(danced.drill, asked), materials, danced.choice, speech)
      if (!tuned) return
      setPlaying(tuned)
      caller.retune(tuned)
      camera.current?.retime(tuned.performance)
    },
    [caller, materials, speech],
  )

  const take = useCallback(
    (steps: readonly ClassStep[]) => {
      for (const step of steps)
        switch (step.kind) {
          case 'play':
            start()
            break
          case 'halt':
            halt()
            break
          case 'retune': {
            retune(drillOf(now.current))
            break
          }
          default:
            if (!GOES_ON.has(step.kind)) place.anew()
            act(step)
        }
    },
    [act, halt, now, retune, start, place.anew],
  )
  const parts = useMemo(
    () => (drill ? partsToDance(drill, materials.laidSongs) : []),
    [drill, materials],
  )
  const dancedFrom = useCallback((ms: number) => take(stepsFrom(now.current, ms)), [take, now])
  const press = useCallback(
    (key: Asked) => {
      if (key === 'full') return void toggle()
      if (key === 'follow') return setLetIn(true)
      if (key !== 'part') return take(stepsFor(now.current, key))
      const next = drill && nextPart(parts, drill)
      if (next) dancedFrom(next.ms)
    },
    [take, now, toggle, drill, parts, dancedFrom],
  )
  const keys = useScreenKeys(classKeys(press), !isOpen && !isLetIn)

  const title = drill ? drillTitle(drill, materials) : 'The class is over'
  const danced = (isDancing ? playing : undefined) ?? whole
  const shown = useMemo(() => danced && shownDrill(danced), [danced])
  const isPlaying = isDancing && playing !== undefined
  const isSaid = drill !== undefined && !isCounted(drill)
  const begun = useBegun(isDancing && isSaid ? drill.id : undefined)
  const rules = useStore(houseNow, (s) => s.rules)
  const telling = useTelling({ session, materials, rules, danced, isPlaying, begun }, caller.clock)
  useBroadcast(session.id, telling, isPlaying)
  const followers = useFollowers(telling, session.phase === 'over')
  const { room, isAsked } = useStore(followers.now)
  const after = session.drills[session.index + 1]
  const words = useMemo(() => wordsOfClass(session, materials), [session, materials])
  const lines = (drill && words.get(drill.id)?.say) ?? []
  // A take is of a combination or of a routine.
  const canFilm = drill && !isSaid && Boolean(drill.combination || drill.song)
  const { cut, saved } = useMemo(
    () => (late > LATE ? cutBy(session, late, materials) : NO_CUT),
    [late, session, materials],
  )
  const speak = useMemo(() => browserSpeech(choice.browserVoice), [choice.browserVoice])
  return (
    <main className={classes.floor} data-phase={session.phase}>
      <ClassHead session={session} title={title} left={left}>
        <Tool icon={IconMaximize} label="Full screen" onClick={() => press('full')} />
        <Tool
          icon={IconScreenShare}
          label="Dancers’ view in its own window"
          href={`/class/${session.id}/dancers`}
        />
        <Tool
          icon={IconUsersGroup}
          label="Let people follow"
          isOn={room !== undefined}
          onClick={() => press('follow')}
        />
        {canFilm && (
          <Tool
            icon={IconVideo}
            label="Film this drill"
            isOn={isFilmed}
            onClick={() => setFilmed(!isFilmed)}
          />
        )}
        <Tool icon={IconAdjustments} label="Sound" onClick={() => setOpen(true)} />
      </ClassHead>
      <Troubles />
      {cut.length > 0 && (
        <p className={classes.late}>
          <span>
            {Math.round(late / 60)} min late. Without{' '}
            {listed(cut.map((one) => drillTitle(one, materials)))} it ends{' '}
            {saved >= late ? 'in time' : `${Math.ceil((late - saved) / 60)} min late`}.
          </span>
          <button type="button" onClick={() => act({ kind: 'cut', seconds: late })}>
            Leave that out
          </button>
        </p>
      )}
      {music && <p className={classes.late}>{music}</p>}
      {isAsked && (
        <p className={classes.late} role="alert">
          <span>Another window of yours wants to lead those who follow.</span>
          <button type="button" onClick={() => followers.answer(true)}>
            Allow
          </button>
          <button type="button" onClick={() => followers.answer(false)}>
            Go on here
          </button>
        </p>
      )}
      {drill && canFilm && isFilmed && (
        <Suspense fallback={<p>Opening…</p>}>
          <ClassFilm
            key={drill.id}
            ref={camera}
            drill={drill}
            title={title}
            isDancing={isDancing}
            begin={begin}
          />
        </Suspense>
      )}
      {session.phase === 'over' || !drill ? (
        <section className={classes.overText}>
          <p className="display">Well danced.</p>
          <p>{session.danced.length} drills are in the diary.</p>
          <Link to={`/diary?class=${session.id}`}>Open it in the diary</Link>
        </section>
      ) : isSaid ? (
        <Tap
          label={
            isDancing
              ? drill.kind === 'walk'
                ? 'Next count'
                : `On from ${title}`
              : `Begin ${title}`
          }
          onTap={() => press('go')}
        >
          <SaidStep
            lines={lines}
            until={begun === undefined ? undefined : begun + saidMs(drill)}
            walk={
              shown && whole && drill.kind === 'walk'
                ? {
                    ...walkTold(drill, whole.round, {
                      walked: session.walked,
                      isUnderWay: isDancing,
                    }),
                    dance: shown,
                    layers: drill.layers,
                    stand: drill.stand,
                  }
                : undefined
            }
            hint="touch for the next count"
          />
        </Tap>
      ) : !shown ? (
        <Problem
          what="What this drill dances is no longer in the combination."
          toDo="Go on to the next one, or plan the class again."
        />
      ) : session.phase === 'asking' ? (
        <section className={classes.asking} aria-label="How was it?">
          <button type="button" onClick={() => press('not-yet')}>
            <b className="display">Not yet</b>
            <span>slower, or in its easier form</span>
            <kbd>{`${capFor('again')} · ${capFor('not-yet')}`}</kbd>
          </button>
          <button type="button" onClick={() => press('clean')}>
            <b className="display">Clean</b>
            <span>{after ? `on to ${drillTitle(after, materials)}` : 'that was the last one'}</span>
            <kbd>{`${capFor('next')} · ${capFor('clean')}`}</kbd>
          </button>
        </section>
      ) : (
        <Tap
          label={isDancing ? 'Pause' : session.phase === 'paused' ? 'Go on' : `Begin ${title}`}
          onTap={() => press('go')}
        >
          <ClassFace
            drill={shown}
            clock={caller.clock}
            isDancing={isDancing}
            resting={
              <DrillWords
                drill={drill}
                words={words.get(drill.id)}
                isPaused={session.phase === 'paused'}
              />
            }
            {...(speak && { onSaid: speak })}
          />
        </Tap>
      )}
      {session.phase !== 'over' && drill && (
        <SongParts parts={parts} drill={drill} onFrom={dancedFrom} stops={place} />
      )}
      {session.phase !== 'over' && drill && (
        <ClassZones
          phase={session.phase}
          drill={drill}
          hasRuns={nextRun(session) !== undefined}
          after={after && drillTitle(after, materials)}
          onPress={press}
        />
      )}
      <Drawer
        opened={isOpen}
        onClose={() => setOpen(false)}
        position="right"
        title="Sound"
        size="md"
        // Back on its button, Space would open it again instead of beginning the drill.
        returnFocus={false}
      >
        <Suspense fallback={<p>Opening…</p>}>
          <SoundPanel
            sound={sound}
            planning={planning}
            drill={drill}
            materials={materials}
            title={session.title}
            keys={keys.lines}
          />
        </Suspense>
      </Drawer>
      {isLetIn && (
        <Suspense fallback={null}>
          <FollowPanel followers={followers} onClose={() => setLetIn(false)} />
        </Suspense>
      )}
      <KeysHelp {...keys} />
    </main>
  )
}

/** The browser's own voice, where it is wanted and there is one. */
function browserSpeech(isWanted: boolean): ((text: string) => void) | undefined {
  if (!isWanted || typeof speechSynthesis === 'undefined') return undefined
  return (text) => {
    speechSynthesis.cancel()
    speechSynthesis.speak(new SpeechSynthesisUtterance(text))
  }
}
