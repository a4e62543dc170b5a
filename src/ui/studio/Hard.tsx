import { useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import { useStore } from 'zustand'
import { placedOn } from '../../core/routine/placed'
import { songFactPlace, songFactText } from '../../core/routine/words'
import type { PlaySong } from '../play/performances'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { danceOf } from '../stores/state'
import classes from './songPanel.module.css'

/** What goes wrong only in this place of the song, because it is faster there. */
export function Hard({ session, song, at }: PlaySong & { readonly session: Session }) {
  const { judge } = useServices()
  const document = useDeferredValue(useStore(session, danceOf))
  const { units } = useStore(houseNow, (s) => s.house)
  const facts = useQuery({
    queryKey: ['danced to', document, song, at],
    queryFn: ({ signal }) =>
      judge.ask(
        'routine',
        { routine: placedOn(song, document, at), song, combinations: [document] },
        signal,
      ),
    gcTime: 0,
    staleTime: 0,
  })
  const found = (facts.data ?? []).filter(({ code }) => code === 'song.dance')
  if (!facts.data) return <p>Looking…</p>
  if (found.length === 0)
    return <p>It is danced here as well as at its own tempo of {document.tempo}.</p>
  return (
    <ul className={classes.hard} aria-label="Too fast only here">
      {found.map((fact) => (
        <li key={`${fact.at} ${songFactText(fact, song, units)}`}>
          <b className="counts">{songFactPlace(fact, song)}</b> {songFactText(fact, song, units)}
        </li>
      ))}
    </ul>
  )
}
