import { Button, Checkbox } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useMemo, useRef, useState } from 'react'
import type { Performance } from '../../core/performance/performance'
import type { Take } from '../../core/take/take'
import { clockText } from '../../core/time/clock'
import { megabytes } from '../parts/locale'
import { useServices } from '../stores/services'
import { CameraView, FilmControls } from './FilmControls'
import type { DancePlace } from './TakeFilm'
import { TakeLook } from './TakeLook'
import classes from './takes.module.css'
import { useFilming } from './useFilming'
import { useTakes } from './useTakes'

interface TakePanelProps {
  readonly danced: Pick<Take, 'of' | 'title'>
  /** What is danced, and begins to play it. */
  readonly play: () => Promise<Performance>
  /** Where the cursor stands: shown while nothing plays. */
  readonly still: DancePlace
  /** The dancing figure, to be looked at beside a take. */
  readonly figure: ReactNode
}

/** Takes are looked at beside each other, no more than that. */
const MOST_SHOWN = 2

/** The room filmed while it is danced, and looked at beside the figure or laid over it. */
export function TakePanel({ danced, play, still, figure }: TakePanelProps) {
  const { takes: open } = useServices()
  const store = useQuery({ queryKey: ['take store'], queryFn: open }).data
  const all = useTakes(store, danced.of)
  const [shown, setShown] = useState<readonly string[]>([])
  const [told, setTold] = useState('')
  const preview = useRef<HTMLVideoElement>(null)
  const { of, title } = danced
  const about = useMemo(
    () => ({ of, title: `${title}, take ${all.length + 1}`.slice(0, 120) }),
    [of, title, all.length],
  )
  const filming = useFilming(store, preview, about, play)
  const takes = all.filter((one) => one.id !== filming.take)
  const isFilming = filming.phase === 'filming'
  const erase = async (ids: readonly string[], words: string) => {
    // The one thing that asks: it can't be had back.
    if (!store || !window.confirm(`${words} It can’t be had back.`)) return
    const freed = await store.erase(ids)
    setShown((all) => all.filter((one) => !ids.includes(one)))
    setTold(`${megabytes(freed)} are free again.`)
    refresh()
  }
  const queries = useQueryClient()
  const refresh = () => void queries.invalidateQueries({ queryKey: ['takes'] })
  const looked = takes.filter((one) => shown.includes(one.id))
  return (
    <section className={classes.panel} aria-label="Takes">
      <h2 className="display">Takes</h2>
      <CameraView filming={filming} preview={preview} />
      <FilmControls filming={filming} words="Film a take" />
      {!isFilming && looked.length === 0 && (
        <p>
          It counts you in, plays, and films once through. Ask everyone first who is in the picture;
          a take never leaves this browser.
        </p>
      )}
      <ul className={classes.takes} aria-label="What was filmed of it">
        {takes.map((take) => (
          <li key={take.id}>
            <Checkbox
              size="sm"
              label={`${take.title}, ${take.seconds > 0 ? clockText(take.seconds) : 'cut off'}`}
              checked={shown.includes(take.id)}
              onChange={() => setShown(toggled(shown, take.id))}
            />
            <Button
              size="compact-xs"
              variant="subtle"
              aria-label={`Delete ${take.title}`}
              onClick={() =>
                void erase([take.id], `Delete ${take.title}, ${megabytes(take.bytes)}?`)
              }
            >
              Delete
            </Button>
          </li>
        ))}
      </ul>
      {takes.length > 1 && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() =>
            void erase(
              takes.map((one) => one.id),
              `Delete all ${takes.length} takes?`,
            )
          }
        >
          Delete all takes of it
        </Button>
      )}
      {told && <p role="status">{told}</p>}
      {store && looked.length > 0 && (
        <TakeLook takes={looked} store={store} still={still} figure={figure} />
      )}
    </section>
  )
}

const toggled = (all: readonly string[], id: string): readonly string[] =>
  all.includes(id) ? all.filter((one) => one !== id) : [...all, id].slice(-MOST_SHOWN)
