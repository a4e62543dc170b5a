import { IconStarFilled } from '@tabler/icons-react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import { createPortal } from 'react-dom'
import { useStore } from 'zustand'
import { whatOf } from '../../core/combination/whatOf'
import type { Move } from '../../core/moves/move'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { type Dragged, drag, type Pointed } from '../parts/drag'
import { carried } from '../stores/carried'
import classes from './moves.module.css'

const ROW_PX = 34

interface MoveListProps {
  readonly moves: readonly Move[]
  readonly chosen?: string | undefined
  readonly favourites: ReadonlySet<string>
  readonly onChoose: (move: Move) => void
  /** In the studio a move can be dragged into the braid. */
  readonly draggable?: boolean
}

/** Carries a move from the list to where it is let go. */
function carry(move: Move, from: Pointed): Dragged {
  const { name, layer, length } = move
  const what = whatOf(move)
  const at = ({ clientX, clientY }: Pointed, isLetGo = false) =>
    carried.setState({ name, layer, what, length, clientX, clientY, isLetGo }, true)
  let last = from
  at(from)
  return {
    move(to) {
      last = to
      at(to)
    },
    drop() {
      at(last, true)
      carried.setState(undefined, true)
    },
    cancel: () => carried.setState(undefined, true),
  }
}

/** A list of moves; arrows go through it. */
export function MoveList({ moves, chosen, favourites, onChoose, draggable }: MoveListProps) {
  const box = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: moves.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  const step = (by: number) => {
    const at = moves.findIndex(({ id }) => id === chosen)
    const next = Math.min(moves.length - 1, Math.max(0, at + by))
    const move = moves[next]
    if (!move) return
    onChoose(move)
    rows.scrollToIndex(next)
  }
  return (
    <div
      ref={box}
      className={classes.list}
      role="listbox"
      aria-label="Moves"
      tabIndex={0}
      aria-activedescendant={chosen ? `move-${chosen}` : undefined}
      onKeyDown={(event) => {
        if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
        event.preventDefault()
        step(event.key === 'ArrowDown' ? 1 : -1)
      }}
    >
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const move = moves[index]
          if (!move) return null
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it has the keys
            // biome-ignore lint/a11y/useFocusableInteractive: the list around it has the focus
            <div
              key={move.id}
              id={`move-${move.id}`}
              role="option"
              aria-selected={move.id === chosen}
              className={`${classes.row} layer-${move.layer}`}
              style={{ transform: `translateY(${start}px)`, height: ROW_PX }}
              onPointerDown={(event) => {
                if (draggable && event.button === 0)
                  drag(event, () => carry(move, event), { least: 4 })
              }}
              onClick={() => onChoose(move)}
            >
              <i aria-hidden />
              <span>{move.name}</span>
              {favourites.has(move.id) && <IconStarFilled size={13} aria-label="favourite" />}
              <small className="counts">{move.length / TICKS_PER_COUNT}</small>
            </div>
          )
        })}
      </div>
      {draggable && <InHand />}
    </div>
  )
}

/** What is carried, under the pointer. */
function InHand() {
  const now = useStore(carried, (one) => one)
  if (!now) return null
  const style = { left: now.clientX, top: now.clientY }
  return createPortal(
    <div className={`${classes.inHand} layer-${now.layer}`} style={style} aria-hidden>
      {now.name}
    </div>,
    document.body,
  )
}
