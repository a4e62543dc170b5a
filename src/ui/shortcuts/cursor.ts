import {
  HALF_COUNT,
  QUARTER_COUNT,
  THIRD_COUNT,
  TICKS_PER_COUNT,
  tick,
  tickOfCount,
} from '../../core/time/time'
import {
  go,
  phraseTicks,
  selectAll,
  selectPhrase,
  stepInTime,
  stepLayer,
  stretchLayers,
} from '../stores/cursor'
import { isArrow, isCtrl, isKey, plain, type Shortcut, way } from './shortcut'

/** Going about and selecting. */
export const CURSOR: readonly Shortcut[] = [
  {
    keys: '← →',
    does: 'one count back or on',
    needsKey: true,
    matches: (press) => plain(press) && !press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * TICKS_PER_COUNT),
  },
  {
    keys: 'Ctrl ← →',
    does: 'half a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && !press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * HALF_COUNT),
  },
  {
    keys: 'Ctrl Shift ← →',
    does: 'a quarter of a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * QUARTER_COUNT),
  },
  {
    keys: 'Ctrl , .',
    does: 'a third of a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && (press.key === ',' || press.key === '.'),
    run: (session, press) => stepInTime(session, press.key === ',' ? -THIRD_COUNT : THIRD_COUNT),
  },
  {
    keys: '↑ ↓',
    does: 'one layer up or down',
    needsKey: true,
    matches: (press) => !press.shift && isKey('ArrowUp', 'ArrowDown')(press),
    run: (session, press) => stepLayer(session, way(press)),
  },
  {
    keys: 'Shift ↑ ↓',
    does: 'select fewer or more layers',
    needsKey: true,
    matches: (press) => press.shift && isKey('ArrowUp', 'ArrowDown')(press),
    run: (session, press) => stretchLayers(session, way(press)),
  },
  {
    keys: 'Shift ← →',
    does: 'select fewer or more counts, on into the next phrase',
    needsKey: true,
    matches: (press) => plain(press) && press.shift && isArrow(press),
    run: (session, press) => {
      const { selection } = session.getState()
      const length = Math.max(HALF_COUNT, selection.length + way(press) * TICKS_PER_COUNT)
      go(session, { length: tick(length), toLayer: selection.toLayer })
    },
  },
  {
    keys: 'Ctrl A',
    does: 'select everything',
    matches: (press) => isCtrl(press, 'a'),
    run: selectAll,
  },
  {
    keys: 'Ctrl Shift A',
    does: 'select this phrase, all layers',
    matches: (press) => isCtrl(press, 'a', { shift: true }),
    run: selectPhrase,
  },
  {
    keys: '1 to 9',
    does: 'jump to a count',
    needsKey: true,
    matches: (press) => plain(press) && /^[1-9]$/.test(press.key),
    run: (session, { key }) => {
      const at = tickOfCount(Number(key))
      if (at < phraseTicks(session, session.getState().selection.pass)) go(session, { at })
    },
  },
  {
    keys: '&',
    does: 'jump to the “and” of this count',
    matches: isKey('&'),
    run: (session) => {
      const { at } = session.getState().selection
      go(session, { at: tick(Math.floor(at / TICKS_PER_COUNT) * TICKS_PER_COUNT + HALF_COUNT) })
    },
  },
]
