import { ActionIcon } from '@mantine/core'
import { IconKeyboard } from '@tabler/icons-react'
import { lazy, Suspense } from 'react'
import type { KeysModalProps } from './KeysModal'

const KeysModal = lazy(async () => ({ default: (await import('./KeysModal')).KeysModal }))

/** All keys of a screen, made from its table. */
export function KeysHelp(props: KeysModalProps) {
  return (
    props.opened && (
      <Suspense>
        <KeysModal {...props} />
      </Suspense>
    )
  )
}

export function KeysButton({ onClick }: { readonly onClick: () => void }) {
  return (
    <ActionIcon variant="default" aria-label="All keys (?)" onClick={onClick}>
      <IconKeyboard size={18} />
    </ActionIcon>
  )
}
