import { useQuery } from '@tanstack/react-query'
import { type Ref, useCallback, useImperativeHandle, useMemo, useRef } from 'react'
import { UserError } from '../../core/errors'
import type { Performance } from '../../core/performance/performance'
import type { Drill } from '../../core/plan/drill'
import { useServices } from '../stores/services'
import { CameraView, FilmControls } from '../takes/FilmControls'
import { useFilming } from '../takes/useFilming'
import classes from './class.module.css'

/** What a class tells its camera. */
export interface ClassCamera {
  /** What sounds goes on at another tempo. */
  readonly retime: (danced: Performance) => void
}

/** Films the room while a drill is danced: a take of its combination, or of its routine. */
export function ClassFilm({
  drill: { combination, song },
  title,
  isDancing,
  begin,
  ref,
}: {
  readonly drill: Drill
  readonly title: string
  readonly isDancing: boolean
  /** Begins the drill, and says what is danced. */
  readonly begin: () => Performance | undefined
  readonly ref: Ref<ClassCamera>
}) {
  const { takes: open } = useServices()
  const store = useQuery({ queryKey: ['take store'], queryFn: open }).data
  const preview = useRef<HTMLVideoElement>(null)
  const about = useMemo(
    () => ({
      title: title.slice(0, 120),
      of: song
        ? { kind: 'routine' as const, id: song.routine }
        : { kind: 'combination' as const, id: combination ?? '' },
    }),
    [title, song, combination],
  )
  const play = useCallback(async () => {
    const danced = begin()
    if (!danced)
      throw new UserError('Nothing of this drill can be danced.', 'Go on to the next one.')
    return danced
  }, [begin])
  const filming = useFilming(store, preview, about, play)
  useImperativeHandle(ref, () => ({ retime: (danced) => void filming.retime(danced) }))
  return (
    <section
      className={classes.film}
      aria-label="Film this drill"
      data-filming={filming.phase === 'filming'}
    >
      <CameraView filming={filming} preview={preview} />
      {filming.phase === 'filming' || !isDancing ? (
        <>
          <FilmControls filming={filming} words="Begin and film" />
          {filming.phase === 'idle' && (
            <p>
              Ask everyone first who is in the picture. The take lies with what is danced, under
              Takes; it never leaves this browser.
            </p>
          )}
        </>
      ) : (
        <p>Pause first: a take begins with the drill.</p>
      )}
    </section>
  )
}
