import type { Format } from '../../core/sheet/formats'
import { documentOf, type Session } from '../stores/session'

/** Saves the open combination as a file; what writes files is loaded when it is needed. */
export async function saveOpen(session: Session, format: Format): Promise<void> {
  const { saveAsFile } = await import('../parts/files')
  saveAsFile(documentOf(session.getState()), format)
}
