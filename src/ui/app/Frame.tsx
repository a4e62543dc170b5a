import { useEffect } from 'react'
import { Outlet, useNavigate } from 'react-router'
import { isSound } from '../parts/isSound'
import { Opened } from '../parts/Opened'
import { openHere } from '../parts/opening'
import { handlesOf, useFileDrop } from '../parts/useFileDrop'
import { type Services, useServices } from '../stores/services'
import classes from './shell.module.css'

/** Files the browser opens this app with, where it can (an installed app). */
interface Launching {
  setConsumer(take: (launched: { readonly files: readonly FileSystemFileHandle[] }) => void): void
}

/** Songs are heard, everything else is read. */
async function take(
  files: readonly File[],
  services: Services,
  goTo: (path: string, state?: unknown) => void,
  handles: ReadonlyMap<string, FileSystemFileHandle>,
): Promise<void> {
  const songs = files.filter(isSound)
  if (songs.length > 0) {
    goTo('/songs')
    const { readSongFile } = await import('../songs/reading')
    const { deck, newId } = services
    const store = await services.songs()
    for (const song of songs)
      await readSongFile(song, { store, deck, newId }, { handle: handles.get(song.name) })
  }
  await openHere(
    files.filter((file) => !isSound(file)),
    services,
    { goTo, handles },
  )
}

/** A screen that has the whole window: what is told of files lies over its edge. */
export const FloorFrame = () => (
  <>
    <Outlet />
    <div className={classes.over}>
      <Opened />
    </div>
  </>
)

/** What is round every screen: files can be dropped on all of them. */
export function Frame() {
  const services = useServices()
  const navigate = useNavigate()
  const dropped = useFileDrop((files, transfer) => {
    // What was dropped is only there to be asked now.
    const handles = handlesOf(transfer)
    void handles.then((known) =>
      take(files, services, (path, state) => void navigate(path, { state }), known),
    )
  })
  useEffect(() => {
    const { launchQueue } = window as { readonly launchQueue?: Launching }
    launchQueue?.setConsumer(({ files: handles }) => {
      void (async () => {
        const files = await Promise.all(handles.map((handle) => handle.getFile()))
        const known = new Map(handles.map((handle) => [handle.name, handle]))
        const goTo = (path: string, state?: unknown) => void navigate(path, { state })
        const reports = await openHere(files, services, { goTo, handles: known })
        const [only] = reports
        if (reports.length === 1 && only?.id) goTo(`/combination/${only.id}`)
      })()
    })
  }, [services, navigate])
  return (
    <div className={classes.frame} {...dropped}>
      <Outlet />
    </div>
  )
}
