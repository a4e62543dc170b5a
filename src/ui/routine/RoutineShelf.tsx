import { Button, Checkbox, SegmentedControl, TextInput } from '@mantine/core'
import { type ReactNode, useState } from 'react'
import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { folded } from '../../core/record/folded'
import { countsFrom } from '../../core/routine/room'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { counted } from '../parts/locale'
import classes from './routine.module.css'
import { useProposals } from './useProposals'

/** Combinations to lay, one by one or as they are proposed. */
export function RoutineShelf({
  routine,
  song,
  combinations,
  onLay,
  onTake,
  say,
  children,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly combinations: readonly Combination[]
  readonly onLay: (combination: Combination, side: Side) => void
  readonly onTake: (proposal: Routine) => void
  readonly say: (text: string) => void
  readonly children: ReactNode
}) {
  const [side, setSide] = useState<Side>('R')
  const [wanted, setWanted] = useState('')
  const [isAnew, setAnew] = useState(false)
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const proposals = useProposals(routine, song, say, isAnew)
  const tick = (id: string, isTicked: boolean) => {
    const next = new Set(ticked)
    if (isTicked) next.add(id)
    else next.delete(id)
    setTicked(next)
  }
  return (
    <section className={classes.shelf} aria-label="Combinations to lay">
      <TextInput
        size="xs"
        aria-label="Find a combination"
        placeholder="Find a combination"
        value={wanted}
        onChange={({ currentTarget }) => setWanted(currentTarget.value)}
      />
      <SegmentedControl
        size="xs"
        aria-label="Side to lay"
        data={[
          { value: 'R', label: 'R side' },
          { value: 'L', label: 'L side' },
        ]}
        value={side}
        onChange={(value) => setSide(value as Side)}
      />
      <ul>
        {combinations
          .filter(({ title }) => folded(title).includes(folded(wanted)))
          .map((one) => (
            <li key={one.id} className={classes.choice}>
              <Checkbox
                aria-label={`Propose with ${one.title}`}
                checked={ticked.has(one.id)}
                onChange={({ currentTarget }) => tick(one.id, currentTarget.checked)}
              />
              <button type="button" className={classes.lay} onClick={() => onLay(one, side)}>
                <b>{one.title}</b>
                <span className="counts">
                  {counted(countsFrom(one), 'count')} · {one.tempo}
                </span>
              </button>
            </li>
          ))}
      </ul>
      <p className={classes.hint}>Touched, it is laid on the selected count.</p>
      <Checkbox
        size="xs"
        label="anew, but for what is locked"
        checked={isAnew}
        onChange={({ currentTarget }) => setAnew(currentTarget.checked)}
      />
      <Button
        size="xs"
        loading={proposals.asking}
        onClick={() => void proposals.ask(combinations.filter(({ id }) => ticked.has(id)))}
      >
        Propose with those ticked
      </Button>
      {proposals.asking && (
        <Button size="xs" variant="default" onClick={proposals.stop}>
          Stop
        </Button>
      )}
      {proposals.proposed.map((one, i) => (
        <button
          key={one.words}
          type="button"
          className={classes.lay}
          onClick={() => onTake(one.routine)}
        >
          <b>Proposal {i + 1}</b>
          <span className="counts">{one.words}</span>
        </button>
      ))}
      {children}
    </section>
  )
}
