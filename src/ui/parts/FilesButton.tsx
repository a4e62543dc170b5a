import { Button, type ButtonProps, FileButton } from '@mantine/core'
import { type ReactNode, useRef } from 'react'

/** A button that asks for files. */
export function FilesButton({
  accept,
  label,
  onFiles,
  children,
  ...button
}: ButtonProps & {
  readonly accept: string
  /** What a screen reader calls it. */
  readonly label: string
  readonly onFiles: (files: readonly File[]) => void
  readonly children: ReactNode
}) {
  const reset = useRef<() => void>(null)
  return (
    <FileButton
      accept={accept}
      multiple
      resetRef={reset}
      onChange={(files) => {
        // The same file chosen again, put right meanwhile, is another one.
        reset.current?.()
        onFiles(files)
      }}
      inputProps={{ 'aria-label': label }}
    >
      {(props) => (
        <Button {...button} {...props}>
          {children}
        </Button>
      )}
    </FileButton>
  )
}
