import { KeysButton } from './KeysHelp'
import { SavedWord } from './SavedWord'
import { UndoButtons } from './UndoButtons'

/** What stands at the top of every open document: whether it is saved, the way back, its keys. */
export const DocumentButtons = ({
  document: { kept, undo, redo, last },
  onKeys,
}: {
  readonly document: {
    readonly kept: 'saved' | 'saving' | 'failed'
    readonly undo: (() => void) | undefined
    readonly redo: (() => void) | undefined
    readonly last: string | undefined
  }
  readonly onKeys: () => void
}) => (
  <>
    <SavedWord state={kept} />
    <UndoButtons undo={undo} redo={redo} last={last} />
    <KeysButton onClick={onKeys} />
  </>
)
