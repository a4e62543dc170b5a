import type { Song } from '../../core/song/song'
import classes from './songs.module.css'

/** A song's face: its sections side by side, as long as they are, glowing as they are loud. */
export function EnergyBand({ song: { sections, counts } }: { readonly song: Song }) {
  const { ms } = counts
  const end = ms.at(-1) ?? 1
  return (
    <span className={classes.band} aria-hidden>
      {sections.map(({ id, at, label, energy }, i) => {
        const from = ms[at] ?? 0
        const to = ms[sections[i + 1]?.at ?? ms.length - 1] ?? end
        return (
          <span
            key={id}
            className={classes.part}
            data-energy={energy}
            style={{ flexGrow: Math.max(1, to - from) }}
          >
            {label}
          </span>
        )
      })}
    </span>
  )
}
