import { type RefObject, useCallback, useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { median } from '../../core/beats/numbers'
import type { Performance } from '../../core/performance/performance'
import { dancedIn, newTake, type Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'
import { inWords } from '../parts/Problem'
import { useServices } from '../stores/services'
import { cameraName, film, openCamera } from './camera'

/** So often it is asked where the sound is, to know where in the film it began. */
const ASKED = 15
const ASK_MS = 60

interface Problem {
  readonly what: string
  readonly toDo: string
}

/** Films a dance from its count-in to its end, and keeps each piece as it comes. */
export function useFilming(
  store: Takes | undefined,
  preview: RefObject<HTMLVideoElement | null>,
  about: Pick<Take, 'title' | 'combination'>,
  /** What is danced, and begins to play it. */
  play: () => Promise<Performance>,
) {
  const { deck, newId } = useServices()
  const playing = useStore(deck, (is) => is)
  const [phase, setPhase] = useState<'idle' | 'opening' | 'filming'>('idle')
  const [problem, setProblem] = useState<Problem>()
  /** The one that is filmed: not looked at yet. */
  const [take, setTake] = useState<string>()
  const ending = useRef<() => void>(() => {})
  const wasPlaying = useRef(false)

  const start = useCallback(
    async (hearsRoom: boolean) => {
      if (!store || !preview.current) return
      setProblem(undefined)
      setPhase('opening')
      const video = preview.current
      try {
        const stream = await openCamera(hearsRoom)
        video.srcObject = stream
        await video.play()
        const id = newId()
        const { all } = await store.takes.list()
        const camera = cameraName(stream)
        const before = all
          .filter((one) => one.camera === camera)
          .sort((a, b) => (a.at < b.at ? 1 : -1))
        let isFull = false
        const filming = film(stream, async (piece) => {
          const isKept = !isFull && (await store.add(id, piece))
          if (isKept) {
            await store.takes.change(id, (now) => ({ ...now, bytes: now.bytes + piece.size }))
            return
          }
          isFull = true
          setProblem({
            what: 'There is no more room for this film.',
            toDo: 'What was filmed so far is kept; delete older takes, then film again.',
          })
          ending.current()
        })
        const at = new Date().toISOString()
        const nudge = before[0]?.nudge ?? 0
        await store.takes.put(newTake({ ...about, id, at, camera, nudge, type: filming.type }))
        setTake(id)
        const { began } = filming
        const end = async () => {
          ending.current = () => {}
          await filming.stop()
          for (const track of stream.getTracks()) track.stop()
          video.srcObject = null
          const seconds = (performance.now() - began) / 1000
          await store.takes.change(id, (now) => ({ ...now, seconds }))
          setPhase('idle')
          setTake(undefined)
        }
        ending.current = () => void end()
        const danced = await play()
        setPhase('filming')
        const begins = await startOf(danced, began, () => deck.position()?.tick)
        await store.takes.change(id, (now) => ({ ...now, danced: dancedIn(danced, begins) }))
      } catch (error) {
        setProblem(inWords(error))
        setPhase('idle')
      }
    },
    [store, preview, newId, about, play, deck],
  )
  const stop = useCallback(() => ending.current(), [])
  // What is no longer danced, or seen, is no longer filmed.
  useEffect(() => {
    if (wasPlaying.current && !playing) stop()
    wasPlaying.current = playing
  }, [playing, stop])
  useEffect(() => {
    const onHidden = () => {
      if (document.hidden) stop()
    }
    document.addEventListener('visibilitychange', onHidden)
    return () => {
      document.removeEventListener('visibilitychange', onHidden)
      stop()
    }
  }, [stop])
  return { phase, problem, take, start, stop }
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
