import { Button } from '@mantine/core'

/** What was just deleted from a list, and the way back. */
export const BringBack = ({
  title,
  onBack,
}: {
  readonly title: string
  readonly onBack: () => void
}) => (
  <p role="status">
    “{title}” was deleted.{' '}
    <Button size="compact-sm" variant="default" onClick={onBack}>
      Bring it back
    </Button>
  </p>
)
