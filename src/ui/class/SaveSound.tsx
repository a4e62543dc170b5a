import { Button, Checkbox } from '@mantine/core'
import { useState } from 'react'
import { type Recording, speechSeconds } from '../../audio/speech'
import { SIDES, sideWord } from '../../core/body/side'
import { drillPerformance, soundFor } from '../../core/class/drillDance'
import type { SoundChoice } from '../../core/class/soundChoice'
import type { Drill } from '../../core/plan/drill'
import { type Materials, roundOf } from '../../core/plan/material'
import { drillTitle } from '../../core/plan/totals'
import { writeVtt } from '../../core/sheet/vtt'
import { download, fileName } from '../parts/files'
import { NumberField } from '../parts/NumberField'
import { SavedSound } from '../play/SavedSound'
import { useSavedSound } from '../play/useSavedSound'
import classes from './class.module.css'

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
  const saved = useSavedSound()
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
      {saved.share === undefined && (
        <div className={classes.record}>
          <Button
            variant="default"
            onClick={() =>
              void saved.save(name, performed(), { mix: choice.mix, loud: choice.mix.music, own })
            }
          >
            Save sound (WAV)
          </Button>
          <Button
            variant="default"
            onClick={() => download(`${name}.vtt`, writeVtt(performed()), 'text/vtt')}
          >
            Save captions (VTT)
          </Button>
        </div>
      )}
      <SavedSound {...saved} />
    </section>
  )
}
