import { useElementSize } from '@mantine/hooks'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, type RefObject } from 'react'
import type { OnShelf } from '../../storage/combinations'
import { type CardActions, CombinationCard } from './CombinationCard'
import classes from './combinations.module.css'

const SMALLEST_CARD_PX = 370
const GAP_PX = 16
const ROW_PX = 198

/** All cards, of which only those on the screen are drawn: a shelf may hold thousands. */
export const CardGrid = memo(function CardGrid({
  shown,
  actions,
  scroller,
}: {
  shown: readonly OnShelf[]
  actions: CardActions
  scroller: RefObject<HTMLElement | null>
}) {
  const { ref, width } = useElementSize()
  const columns = Math.max(1, Math.floor((width + GAP_PX) / (SMALLEST_CARD_PX + GAP_PX)))
  const rows = useVirtualizer({
    count: width === 0 ? 0 : Math.ceil(shown.length / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 1,
  })
  return (
    <div ref={ref} style={{ height: rows.getTotalSize(), position: 'relative' }}>
      {rows.getVirtualItems().map(({ index, start }) => (
        <div
          key={index}
          className={classes.cards}
          style={{
            transform: `translateY(${start}px)`,
            gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
          }}
        >
          {shown.slice(index * columns, (index + 1) * columns).map((one) => (
            <CombinationCard key={one.id} shown={one} actions={actions} />
          ))}
        </div>
      ))}
    </div>
  )
})
