import { type RefObject, useCallback, useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { median } from '../../core/beats/numbers'
import type { Performance } from '../../core/performance/performance'
import { dancedIn, goneOn, newTake, type Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'
import { inWords } from '../parts/Problem'
import { useServices } from '../stores/services'
import { cameraName, film, openCamera } from './camera'

/** So often it is asked where the sound is, to know where in the film it began. */
const ASKED = 15
const ASK_MS = 60

const FULL = {
  what: 'There is no more room for this film.',
  toDo: 'What was filmed so far is kept; delete older takes, then film again.',
}

/** Films a dance from its count-in to its end, and keeps each piece as it comes. */
export function useFilming(
  store: Takes | undefined,
  preview: RefObject<HTMLVideoElement | null>,
  about: Pick<Take, 'title' | 'of'>,
  /** What is danced, and begins to play it. */
  play: () => Promise<Performance>,
) {
  const { deck, newId } = useServices()
  const playing = useStore(deck, (is) => is)
  const [phase, setPhase] = useState<'idle' | 'opening' | 'filming'>('idle')
  const [problem, setProblem] = useState<{ readonly what: string; readonly toDo: string }>()
  /** The one that is filmed: not looked at yet. */
  const [take, setTake] = useState<string>()
  const now = useRef<Begun>(undefined)
  const wasPlaying = useRef(false)

  const stop = useCallback(async () => {
    const begun = now.current
    now.current = undefined
    if (!begun) return
    await begun.end()
    setTake(undefined)
    setPhase('idle')
  }, [])
  const start = useCallback(
    async (hearsRoom: boolean) => {
      const video = preview.current
      if (!store || !video) return
      setProblem(undefined)
      setPhase('opening')
      let stream: MediaStream | undefined
      try {
        stream = await openCamera(hearsRoom)
        const id = newId()
        const begun = await begin(store, video, stream, { ...about, id }, () => {
          setProblem(FULL)
          void stop()
        })
        now.current = begun
        setTake(id)
        const danced = await play()
        setPhase('filming')
        const begins = await startOf(danced, begun.began, () => deck.position()?.tick)
        await store.takes.change(id, (one) => ({ ...one, danced: dancedIn(danced, begins) }))
      } catch (error) {
        // A camera that nobody needs any more is let go.
        if (!now.current) for (const track of stream?.getTracks() ?? []) track.stop()
        await stop()
        setProblem(inWords(error))
        setPhase('idle')
      }
    },
    [store, preview, newId, about, play, deck, stop],
  )
  // What is no longer danced, or seen, is no longer filmed.
  useEffect(() => {
    if (wasPlaying.current && !playing) void stop()
    wasPlaying.current = playing
  }, [playing, stop])
  useEffect(() => {
    const onHidden = () => {
      if (document.hidden) void stop()
    }
    document.addEventListener('visibilitychange', onHidden)
    return () => {
      document.removeEventListener('visibilitychange', onHidden)
      void stop()
    }
  }, [stop])
  /** What is danced goes on at another tempo. */
  const retime = useCallback(
    async (danced: Performance) => {
      const begun = now.current
      if (!store || !begun) return
      const from = Math.round(performance.now() - begun.began)
      const begins = await startOf(danced, begun.began, () => deck.position()?.tick)
      await store.takes.change(begun.id, (one) => ({
        ...one,
        danced: goneOn(one.danced, { from, danced: dancedIn(danced, begins) }),
      }))
    },
    [store, deck],
  )
  return { phase, problem, take, start, stop, retime, isReady: store !== undefined }
}

export type Filming = ReturnType<typeof useFilming>

/** A take that is filmed now. */
interface Begun {
  readonly id: string
  /** When its film began, on the clock of the page. */
  readonly began: number
  readonly end: () => Promise<void>
}

/** Begins to film what a camera sees into a new take. @param onFull told where no more of it can be kept */
async function begin(
  { takes, add }: Takes,
  video: HTMLVideoElement,
  stream: MediaStream,
  about: Pick<Take, 'id' | 'title' | 'of'>,
  onFull: () => void,
): Promise<Begun> {
  const { id } = about
  video.srcObject = stream
  await video.play()
  const camera = cameraName(stream)
  const { all } = await takes.list()
  const last = all.filter((one) => one.camera === camera).sort((a, b) => (a.at < b.at ? 1 : -1))[0]
  let isFull = false
  const { began, type, stop } = film(stream, async (piece) => {
    const isKept = !isFull && (await add(id, piece))
    if (isKept) await takes.change(id, (now) => ({ ...now, bytes: now.bytes + piece.size }))
    else if (!isFull) {
      isFull = true
      onFull()
    }
  })
  // A camera is as late as it was the last time.
  const nudge = last?.nudge ?? 0
  const at = new Date().toISOString()
  await takes.put(newTake({ ...about, at, camera, nudge, type }))
  return {
    id,
    began,
    async end() {
      const seconds = (performance.now() - began) / 1000
      await stop()
      for (const track of stream.getTracks()) track.stop()
      video.srcObject = null
      await takes.change(id, (now) => ({ ...now, seconds }))
    },
  }
}

/** Milliseconds of the film at which a performance began: asked for some times, since the clock of the sound goes in steps. */
async function startOf(
  { time }: Performance,
  began: number,
  tickNow: () => number | undefined,
): Promise<number> {
  const found: number[] = []
  for (let i = 0; i < ASKED; i++) {
    await new Promise((done) => setTimeout(done, ASK_MS))
    const tick = tickNow()
    if (tick !== undefined && tick > 0)
      found.push(performance.now() - began - 1000 * time.secondsAt(tick))
  }
  return median(found)
}
