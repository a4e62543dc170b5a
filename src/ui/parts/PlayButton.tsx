import { ActionIcon } from '@mantine/core'
import { IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'

/** The large round button of a play bar: play, or stop. */
export function PlayButton({
  playing,
  className,
  disabled = false,
  onClick,
}: {
  readonly playing: boolean
  readonly className: string | undefined
  readonly disabled?: boolean
  readonly onClick: () => void
}) {
  return (
    <ActionIcon
      {...(className !== undefined && { className })}
      size={46}
      radius="xl"
      aria-label={playing ? 'Stop' : 'Play'}
      disabled={disabled}
      onClick={onClick}
    >
      {playing ? <IconPlayerStopFilled size={22} /> : <IconPlayerPlayFilled size={22} />}
    </ActionIcon>
  )
}
