import { useCallback, useMemo } from 'react'
import { useStore } from 'zustand'
import type { Performance } from '../../core/performance/performance'
import { secondsOfCount } from '../../core/song/song'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { Songs } from '../../storage/songs'
import type { PlaySong } from '../play/performances'
import { Film } from '../songs/Film'
import { checkedOf } from '../stores/checked'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { documentOf, type SessionState } from '../stores/state'
import { TakePanel } from '../takes/TakePanel'
import { Stage } from './Stage'

/** Where the cursor stands, in ticks of the dance. */
const cursorTick = ({ selection, history }: SessionState): number =>
  (checkedOf(history.present).lead.passes[selection.pass]?.at ?? 0) + selection.at

/** The film of the song; while nothing plays it shows what is danced where the cursor stands. */
export function FilmHere({
  session,
  store,
  played: { song, at },
}: {
  readonly session: Session
  readonly store: Songs
  readonly played: PlaySong
}) {
  const tick = useStore(session, cursorTick)
  const still = secondsOfCount(song, at + tick / TICKS_PER_COUNT)
  return <Film song={song} store={store} still={still} />
}

/** Takes of what is danced here. */
export function Filmed({
  session,
  perform,
}: {
  readonly session: Session
  /** What is danced, once through. */
  readonly perform: () => Performance
}) {
  const { deck } = useServices()
  const id = useStore(session, (s) => documentOf(s).id)
  const title = useStore(session, (s) => documentOf(s).title)
  const side = useStore(session, ({ selection }) => selection.dancing.side)
  const tick = useStore(session, cursorTick)
  const play = useCallback(async () => {
    const performance = perform()
    await deck.play(performance)
    return performance
  }, [deck, perform])
  return (
    <TakePanel
      danced={useMemo(() => ({ of: { kind: 'combination', id }, title }), [id, title])}
      play={play}
      still={useMemo(() => ({ side, tick }), [side, tick])}
      figure={<Stage session={session} />}
    />
  )
}
