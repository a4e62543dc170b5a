import { ActionIcon, Button } from '@mantine/core'
import { IconArrowLeft, IconArrowRight, IconTrash } from '@tabler/icons-react'
import { HALF_COUNT, type Tick, tick } from '../../core/time/time'
import { Step } from './Step'

interface SpanButtonsProps {
  readonly span: { readonly at: Tick; readonly length: Tick }
  readonly set: (change: { at?: Tick; length?: Tick }) => void
  readonly onRemove: () => void
}

/** Earlier and later, shorter and longer by half a count, and out of the phrase. */
export function SpanButtons({ span: { at, length }, set, onRemove }: SpanButtonsProps) {
  return (
    <>
      <Button.Group>
        <Step label="Half a count earlier" onClick={() => set({ at: tick(at - HALF_COUNT) })}>
          <IconArrowLeft size={14} />
        </Step>
        <Step label="Half a count later" onClick={() => set({ at: tick(at + HALF_COUNT) })}>
          <IconArrowRight size={14} />
        </Step>
      </Button.Group>
      <Button.Group>
        <Step
          label="Half a count shorter"
          onClick={() => set({ length: tick(Math.max(HALF_COUNT, length - HALF_COUNT)) })}
        >
          −½
        </Step>
        <Step
          label="Half a count longer"
          onClick={() => set({ length: tick(length + HALF_COUNT) })}
        >
          +½
        </Step>
      </Button.Group>
      <ActionIcon variant="default" aria-label="Remove" onClick={onRemove}>
        <IconTrash size={16} />
      </ActionIcon>
    </>
  )
}
