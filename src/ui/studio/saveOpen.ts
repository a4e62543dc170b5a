import type { Format } from '../../core/sheet/formats'
import type { Session } from '../stores/session'
import { writtenOf } from '../stores/state'

/** Saves the open combination as a file; what writes files is loaded when it is needed. */
export async function saveOpen(session: Session, format: Format): Promise<void> {
  const { saveAsFile } = await import('../parts/files')
  saveAsFile(writtenOf(session.getState()), format)
}
