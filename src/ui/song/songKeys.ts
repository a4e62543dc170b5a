import type { ScreenKey } from '../parts/keys'
import { type countChanges, NUDGE } from './countChanges'

/** What the keys of a song do. */
interface Hands {
  readonly edits: ReturnType<typeof countChanges>
  /** Goes to the count so many on; with `isMore` it selects them. */
  readonly go: (by: number, isMore?: boolean) => void
  readonly line: number
  readonly phrase: number
  readonly zoom: (by: number) => void
  readonly playOrStop: () => void
  readonly tap: () => void
  /** Shows the film, or puts it away. */
  readonly film: () => void
}

const held = { repeats: true } as const

/** The keys of the counts of a song. */
export const songKeys = ({
  edits,
  go,
  line,
  phrase,
  zoom,
  playOrStop,
  tap,
  film,
}: Hands): readonly ScreenKey[] => [
  { on: [' '], does: 'play from the selected count, or stop', run: playOrStop },
  { on: ['ArrowRight'], does: 'the next count', run: () => go(1), ...held },
  { on: ['ArrowLeft'], does: 'the count before', run: () => go(-1), ...held },
  { on: ['ArrowDown'], does: 'a line on', run: () => go(line), ...held },
  { on: ['ArrowUp'], does: 'a line back', run: () => go(-line), ...held },
  { on: ['Shift ArrowRight'], does: 'select one more', run: () => go(1, true), ...held },
  { on: ['Shift ArrowLeft'], does: 'select one less', run: () => go(-1, true), ...held },
  { on: ['PageDown'], does: 'a phrase on', run: () => go(phrase), ...held },
  { on: ['PageUp'], does: 'a phrase back', run: () => go(-phrase), ...held },
  { on: ['t'], does: 'tap along', run: tap },
  { on: ['v'], does: 'show the film, or put it away', run: film },
  { on: ['1'], does: 'this is 1', run: edits.one },
  { on: ['!'], does: 'count anew here', run: edits.anew },
  { on: ['['], does: 'twice as many counts', run: edits.twice },
  { on: [']'], does: 'half as many counts', run: edits.half },
  { on: [','], does: 'counts a little earlier', run: () => edits.nudge(-NUDGE.little), ...held },
  { on: ['.'], does: 'counts a little later', run: () => edits.nudge(NUDGE.little), ...held },
  {
    on: ['Alt ArrowLeft'],
    does: 'this count earlier, set by hand',
    run: () => edits.setBy(-NUDGE.little),
    ...held,
  },
  {
    on: ['Alt ArrowRight'],
    does: 'this count later, set by hand',
    run: () => edits.setBy(NUDGE.little),
    ...held,
  },
  { on: ['0'], does: 'no count here, or again', run: edits.uncount },
  { on: ['+'], does: 'fewer counts in a line', run: () => zoom(1) },
  { on: ['-'], does: 'more counts in a line', run: () => zoom(-1) },
]
