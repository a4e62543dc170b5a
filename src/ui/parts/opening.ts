import { createStore } from 'zustand/vanilla'
import type { FileReport } from '../../storage/backup'
import type { Services } from '../stores/services'
import { inWords } from './Problem'

/** Files that are being opened on whatever screen, and how each of the last ones fared. */
interface Openings {
  readonly reports: readonly FileReport[]
  /** What is being read, and how it is stopped. */
  readonly going: { readonly text: string; readonly stop: AbortController } | undefined
}

export const openings = createStore<Openings>(() => ({ reports: [], going: undefined }))

export const tellOpened = (reports: readonly FileReport[]): void => openings.setState({ reports })

interface Ways {
  readonly goTo: (path: string, state?: unknown) => void
  readonly handles?: ReadonlyMap<string, FileSystemFileHandle> | undefined
}

/** Opens files on whatever screen they came: a page somebody wrote is read first, all others are told of. */
export async function openHere(
  files: readonly File[],
  services: Services,
  { goTo, handles }: Ways,
): Promise<readonly FileReport[]> {
  if (files.length === 0) return []
  const stop = new AbortController()
  openings.setState({ reports: [], going: { text: 'Opening…', stop } })
  try {
    const { openFiles, pageIn } = await import('./files')
    const page = await pageIn(files)
    if (page !== undefined) {
      goTo('/page', { text: page })
      return []
    }
    const onStep = (text: string) =>
      openings.setState({ going: { text: `Opening ${text}…`, stop } })
    const reports = await openFiles(files, services, { onStep, signal: stop.signal, handles })
    tellOpened(reports)
    return reports
  } catch (error) {
    const { what, toDo } = inWords(error)
    tellOpened([{ name: what, ok: false, text: toDo }])
    return []
  } finally {
    openings.setState({ going: undefined })
  }
}
