import { Button, Checkbox, Progress } from '@mantine/core'
import { useRef, useState } from 'react'
import { scheduleOf } from '../../audio/render'
import type { RenderReply, RenderWish } from '../../audio/render.worker'
import { loadBanks, type Recording, speechSeconds } from '../../audio/speech'
import { SIDES, sideWord } from '../../core/body/side'
import { drillPerformance, soundFor } from '../../core/class/drillDance'
import type { SoundChoice } from '../../core/class/soundChoice'
import type { Drill } from '../../core/plan/drill'
import { type Materials, roundOf } from '../../core/plan/material'
import { drillTitle, minutesText } from '../../core/plan/totals'
import { writeVtt } from '../../core/sheet/vtt'
import { download, fileName } from '../parts/files'
import { NumberField } from '../parts/NumberField'
import classes from './class.module.css'

const RATE = 44_100

interface SaveSoundProps {
  readonly drill: Drill
  readonly materials: Materials
  readonly choice: SoundChoice
  readonly own: ReadonlyMap<string, Recording>
  readonly title: string
}

/** The drill as a sound file for practice at home, and its captions. */
export function SaveSound({ drill, materials, choice, own, title }: SaveSoundProps) {
  const [sides, setSides] = useState(drill.sides)
  const [rounds, setRounds] = useState(drill.repeats)
  const [share, setShare] = useState<number>()
  const [done, setDone] = useState<string>()
  const running = useRef<Worker>(undefined)
  const round = roundOf(drill, materials)
  if (!round) return null
  const name = fileName(`${title} ${drillTitle(drill, materials)}`, '')
  const performed = () => {
    const { inTurn, ...once } = drill
    const wanted = {
      ...once,
      ...(inTurn && sides.length === 2 && { inTurn }),
      sides,
      repeats: rounds,
    }
    return drillPerformance(wanted, round, soundFor(choice, round, speechSeconds(own)))
  }
  const stop = () => {
    running.current?.terminate()
    running.current = undefined
    setShare(undefined)
  }
  const save = async () => {
    setDone(undefined)
    setShare(0)
    const begun = performance.now()
    const context = new OfflineAudioContext(1, 1, RATE)
    const banks = await loadBanks(context).catch(() => undefined)
    const worker = new Worker(new URL('../../audio/render.worker.ts', import.meta.url), {
      type: 'module',
    })
    running.current = worker
    worker.onmessage = ({ data }: MessageEvent<RenderReply>) => {
      if (data.kind === 'share') return setShare(data.share)
      stop()
      if (data.kind === 'failed') return setDone(`It could not be written: ${data.text}`)
      download(`${name}.wav`, new Blob([data.wav], { type: 'audio/wav' }), 'audio/wav')
      const took = (performance.now() - begun) / 1000
      setDone(`${minutesText(data.seconds)} of sound, written in ${took.toFixed(1)} s.`)
    }
    const wish: RenderWish = {
      schedule: scheduleOf(performed()),
      rate: RATE,
      mix: choice.mix,
      banks,
      own,
    }
    worker.postMessage(wish)
  }
  return (
    <section className={classes.words} aria-label="As a file">
      <h2 className="display">As a file</h2>
      <Checkbox.Group
        label="Sides"
        value={[...sides]}
        onChange={(chosen) => {
          const next = drill.sides.filter((side) => chosen.includes(side))
          if (next.length > 0) setSides(next)
        }}
      >
        <div className={classes.record}>
          {SIDES.map((side) => (
            <Checkbox
              key={side}
              value={side}
              label={sideWord[side]}
              disabled={!drill.sides.includes(side)}
            />
          ))}
        </div>
      </Checkbox.Group>
      <NumberField label="Rounds a side" min={1} max={99} value={rounds} onCommit={setRounds} />
      {share === undefined ? (
        <div className={classes.record}>
          <Button variant="default" onClick={() => void save()}>
            Save sound (WAV)
          </Button>
          <Button
            variant="default"
            onClick={() => download(`${name}.vtt`, writeVtt(performed()), 'text/vtt')}
          >
            Save captions (VTT)
          </Button>
        </div>
      ) : (
        <div className={classes.record}>
          <Progress value={share * 100} aria-label="Written so far" className={classes.progress} />
          <Button variant="default" onClick={stop}>
            Stop
          </Button>
        </div>
      )}
      {done && <p role="status">{done}</p>}
    </section>
  )
}
