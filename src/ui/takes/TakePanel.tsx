import { Button, Checkbox, SegmentedControl, Switch } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react'
import type { Performance } from '../../core/performance/performance'
import { nudgedTake, type Take } from '../../core/take/take'
import { clockText } from '../../core/time/clock'
import type { Takes } from '../../storage/takes'
import { megabytes } from '../parts/locale'
import { Problem } from '../parts/Problem'
import { useServices } from '../stores/services'
import { type DancePlace, TakeFilm } from './TakeFilm'
import classes from './takes.module.css'
import { useFilming } from './useFilming'

interface TakePanelProps {
  readonly combination: { readonly id: string; readonly title: string }
  /** What is danced, and begins to play it. */
  readonly play: () => Promise<Performance>
  /** Where the cursor stands: shown while nothing plays. */
  readonly still: DancePlace
  /** The dancing figure, to be looked at beside a take. */
  readonly figure: ReactNode
}

/** Takes are looked at beside each other, no more than that. */
const MOST_SHOWN = 2
const NUDGE_MS = 20

/** The room filmed while it is danced, and looked at beside the figure or laid over it. */
export function TakePanel({ combination, play, still, figure }: TakePanelProps) {
  const { takes: open } = useServices()
  const store = useQuery({ queryKey: ['take store'], queryFn: open }).data
  const all = useTakes(store, combination.id)
  const [shown, setShown] = useState<readonly string[]>([])
  const [isOver, setOver] = useState(false)
  const [isMirrored, setMirrored] = useState(true)
  const [hearsRoom, setHears] = useState(false)
  const [told, setTold] = useState('')
  const preview = useRef<HTMLVideoElement>(null)
  const { id, title } = combination
  const about = useMemo(
    () => ({ combination: id, title: `${title}, take ${all.length + 1}`.slice(0, 120) }),
    [id, title, all.length],
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
      <div className={classes.camera} data-filming={isFilming} hidden={filming.phase === 'idle'}>
        {/* What the camera sees now; nobody speaks in it. */}
        <video ref={preview} muted playsInline aria-label="What the camera sees" />
        {isFilming && <p role="status">Recording, kept only in this browser.</p>}
      </div>
      {filming.problem && <Problem {...filming.problem} />}
      <div className={classes.row}>
        {isFilming ? (
          <Button color="red" onClick={() => void filming.stop()}>
            Stop filming
          </Button>
        ) : (
          <Button
            variant="default"
            loading={filming.phase === 'opening'}
            onClick={() => void filming.start(hearsRoom)}
          >
            Film a take
          </Button>
        )}
        <Checkbox
          size="xs"
          label="with the sound of the room"
          checked={hearsRoom}
          disabled={isFilming}
          onChange={({ currentTarget }) => setHears(currentTarget.checked)}
        />
      </div>
      {!isFilming && looked.length === 0 && (
        <p>
          It counts you in, plays, and films once through. Ask everyone first who is in the picture;
          a take never leaves this browser.
        </p>
      )}
      <ul className={classes.takes} aria-label="Takes of this combination">
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
        <>
          <div className={classes.row}>
            <SegmentedControl
              size="xs"
              aria-label="The figure and the take"
              data={[
                { value: 'beside', label: 'Beside' },
                { value: 'over', label: 'Laid over' },
              ]}
              value={isOver ? 'over' : 'beside'}
              onChange={(value) => setOver(value === 'over')}
            />
            <Switch
              size="xs"
              label="As in a mirror"
              checked={isMirrored}
              onChange={({ currentTarget }) => setMirrored(currentTarget.checked)}
            />
          </div>
          <div className={classes.look} data-over={isOver}>
            {looked.map((take) => (
              <div key={take.id} className={classes.looked}>
                <TakeFilm take={take} store={store} still={still} isMirrored={isMirrored} />
                <p className={classes.row}>
                  <Nudge take={take} by={-NUDGE_MS} store={store} />
                  <Nudge take={take} by={NUDGE_MS} store={store} />
                  <span className="counts">{take.nudge} ms</span>
                </p>
              </div>
            ))}
            {figure}
          </div>
        </>
      )}
    </section>
  )
}

/** Pictures that come late from their camera are put right. */
function Nudge({
  take,
  by,
  store,
}: {
  readonly take: Take
  readonly by: number
  readonly store: Takes
}) {
  const words = `Pictures ${Math.abs(by)} ms ${by < 0 ? 'earlier' : 'later'}`
  return (
    <Button
      size="compact-xs"
      variant="default"
      aria-label={`${words}, ${take.title}`}
      onClick={() => void store.takes.change(take.id, (now) => nudgedTake(now, by))}
    >
      {by < 0 ? '− ' : '+ '}
      {Math.abs(by)} ms
    </Button>
  )
}

/** The takes of a combination, the last one first. */
function useTakes(store: Takes | undefined, combination: string): readonly Take[] {
  const queries = useQueryClient()
  useEffect(
    () => store?.takes.watch(() => void queries.invalidateQueries({ queryKey: ['takes'] })),
    [store, queries],
  )
  const { data } = useQuery({
    queryKey: ['takes'],
    queryFn: async () => (await store?.takes.list())?.all ?? [],
    enabled: store !== undefined,
    staleTime: 0,
  })
  return useMemo(
    () =>
      (data ?? [])
        .filter((one) => one.combination === combination)
        .sort((a, b) => (a.at < b.at ? 1 : -1)),
    [data, combination],
  )
}

const toggled = (all: readonly string[], id: string): readonly string[] =>
  all.includes(id) ? all.filter((one) => one !== id) : [...all, id].slice(-MOST_SHOWN)
