import { Button } from '@mantine/core'
import { useDeferredValue, useState } from 'react'
import { useStore } from 'zustand'
import { facingWord } from '../../core/body/facing'
import { otherSide, sideWord } from '../../core/body/side'
import { sharedTurn, startFacing, toFourWalls } from '../../core/edits/turns'
import { roundEnds, stateBefore } from '../../core/simulate/simulate'
import { naturalWay, turnsOf } from '../../core/simulate/turns'
import { tick } from '../../core/time/time'
import { NumberField } from '../parts/NumberField'
import { checkedOf } from '../stores/checked'
import { useServices } from '../stores/services'
import { change, type Session } from '../stores/session'
import { danceOf } from '../stores/state'
import classes from './floorMap.module.css'

/** Every turn: its count, its degrees, where one faces then. */
export function TurnTable({ session }: { session: Session }) {
  const document = useDeferredValue(useStore(session, danceOf))
  const { lead } = checkedOf(document)
  const turns = turnsOf(lead)
  if (turns.length === 0) return <p className={classes.quiet}>Nothing turns yet.</p>
  return (
    <table className={classes.turns}>
      <thead>
        <tr>
          <th scope="col">count</th>
          <th scope="col">turns</th>
          <th scope="col">then faces</th>
        </tr>
      </thead>
      <tbody>
        {turns.map(({ pass, count, degrees, facing }) => (
          <tr key={`${pass}-${count}`}>
            <td className="counts">
              {lead.passes[pass]?.phrase.name}
              {count}
            </td>
            <td className="counts">
              {degrees > 0 ? '↻' : '↺'} {Math.abs(degrees)}°
            </td>
            <td>{facingWord(facing)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** A turn shared over the selected counts, the four walls, the diagonal. */
export function TurnTools({ session, at }: { session: Session; at: number }) {
  const { newId } = useServices()
  const [degrees, setDegrees] = useState(360)
  const document = useStore(session, danceOf)
  const { lead } = checkedOf(document)
  const round = roundEnds(lead)
  const { weight } = stateBefore(lead, at)
  const free = weight === 'both' ? undefined : otherSide[weight]
  const facing = document.start.facing
  return (
    <>
      <div className={classes.row}>
        <NumberField
          aria-label="Degrees to share"
          w={84}
          step={45}
          min={-1080}
          max={1080}
          suffix="°"
          value={degrees}
          onCommit={setDegrees}
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            const { selection } = session.getState()
            const phrase = document.order[selection.pass]?.phrase ?? ''
            change(
              session,
              'share a turn',
              sharedTurn(
                phrase,
                { at: selection.at, length: tick(selection.length) },
                degrees,
                newId(),
              ),
            )
          }}
        >
          Share over the selected counts
        </Button>
      </div>
      {free && (
        <p className={classes.quiet}>
          Here your {sideWord[free]} foot is free: a turn to the {naturalWay(free)} opens towards
          it, to the {naturalWay(otherSide[free])} it crosses.
        </p>
      )}
      <div className={classes.row}>
        {(['right', 'left'] as const).map((way) => (
          <Button
            key={way}
            size="compact-xs"
            variant="default"
            onClick={() =>
              change(
                session,
                'dance it to all four walls',
                toFourWalls(
                  { start: round.from.facing, end: round.to.facing },
                  way === 'right' ? 1 : -1,
                ),
              )
            }
          >
            All four walls, {way}
          </Button>
        ))}
        <Button
          size="compact-xs"
          variant="default"
          onClick={() =>
            change(
              session,
              facing % 90 === 0 ? 'dance it on the diagonal' : 'dance it to the front',
              startFacing(facing % 90 === 0 ? facing + 45 : facing - 45),
            )
          }
        >
          {facing % 90 === 0 ? 'On the diagonal' : 'Off the diagonal'}
        </Button>
      </div>
    </>
  )
}
