import type { DrillNotes } from '../../core/plan/notes'

/** What to watch, to offer and to take care of; as many of each as there is room for. */
export function NoteLines({ notes, most }: { readonly notes: DrillNotes; readonly most: number }) {
  return (
    <>
      {notes.watch.slice(0, most).map((text) => (
        <p key={text}>
          <b>Watch</b> {text}
        </p>
      ))}
      {notes.easier.map(({ of, to, event }) => (
        <p key={event}>
          <b>Easier</b> {to} for {of}
        </p>
      ))}
      {notes.cautions.slice(0, most).map((text) => (
        <p key={text}>
          <b>Care</b> {text}
        </p>
      ))}
    </>
  )
}
