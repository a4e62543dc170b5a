import type { CueRow } from '../../core/routine/cueSheet'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { clockTenths } from '../../core/time/clock'
import classes from './routine.module.css'

/** The cue sheet on paper: only printed. */
export function CuePaper({
  routine,
  song,
  rows,
  then,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly rows: readonly CueRow[]
  /** What is danced after it. */
  readonly then: string | undefined
}) {
  return (
    <article className={classes.paper} aria-hidden>
      <h1 className="display">
        {routine.title} <span>on {[song.title, song.by].filter(Boolean).join(', ')}</span>
      </h1>
      <table>
        <thead>
          <tr>
            <th>Time</th>
            <th>Where</th>
            <th>Count</th>
            <th>What</th>
            <th>Phrases</th>
            <th>Side</th>
            <th>Counts</th>
            <th>Faces</th>
            <th>Tempo</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.count}>
              <td>{clockTenths(row.seconds)}</td>
              <td>{row.place}</td>
              <td>{row.count}</td>
              <td>
                <b>{row.what}</b> {row.cue}
              </td>
              <td>{row.phrases}</td>
              <td>{row.side}</td>
              <td>{row.counts}</td>
              <td>{row.facing}</td>
              <td>{Math.round(row.tempo)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {then && (
        <p>
          Then <b>{then}</b>, {routine.next?.pause} s after the end.
        </p>
      )}
    </article>
  )
}
