import { Button } from '@mantine/core'

interface StepProps {
  readonly label: string
  readonly onClick: () => void
  readonly children: React.ReactNode
}

/** One step of a time or a length. */
export const Step = ({ label, onClick, children }: StepProps) => (
  <Button size="compact-sm" variant="default" aria-label={label} onClick={onClick}>
    {children}
  </Button>
)
