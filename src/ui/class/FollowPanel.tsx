import { Button, Modal, NativeSelect } from '@mantine/core'
import { create } from 'qrcode'
import { useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { counted } from '../parts/locale'
import { Problem } from '../parts/Problem'
import classes from './follow.module.css'
import type { Followers } from './followers'

/** Room round a code that is scanned, in its squares. */
const QUIET = 2

/** Where people join the class, and who has. */
export function FollowPanel({
  followers,
  onClose,
}: {
  readonly followers: Followers
  readonly onClose: () => void
}) {
  const { server, addresses, room, problem } = useStore(followers.now)
  const [chosen, setChosen] = useState<string>()
  const address = chosen ?? room?.address ?? addresses[0]
  return (
    <Modal opened onClose={onClose} title="Let people follow" size="min(92vw, 1100px)" centered>
      {problem && <Problem {...problem} />}
      {server === 'none' ? (
        <Problem
          what="Nobody can follow yet: the app has no room to open."
          toDo="Start it with “npm run studio” instead, and open this class again."
        />
      ) : server === 'sought' ? (
        <p>Looking for the room…</p>
      ) : server === 'busy' || server === 'asking' ? (
        <div className={classes.panel}>
          <p>Another window of yours leads those who follow.</p>
          <Button onClick={followers.take} loading={server === 'asking'}>
            Lead from here
          </Button>
          {server === 'asking' && <p>Waiting for the other window to answer.</p>}
        </div>
      ) : address === undefined ? (
        <Problem
          what="This machine is in no network."
          toDo="Join the wireless network of the room, or open a hot spot, then try again."
        />
      ) : (
        <div className={classes.panel}>
          {room ? (
            <div className={classes.join}>
              <Scan url={room.url} code={room.key} />
              <div>
                <p>Scan it, or type this address into a browser, and then the six digits:</p>
                <p className={classes.address}>{room.url.replace(/^http:\/\/|\/$/g, '')}</p>
                <p className={`display counts ${classes.code}`} data-code>
                  {room.code.slice(0, 3)} {room.code.slice(3)}
                </p>
                <Who followers={followers} />
              </div>
            </div>
          ) : (
            <p>
              Phones and tablets in the same network see the count, the figure and what comes next,
              in step with the sound. They see nothing else of this app, and it ends with the class.
            </p>
          )}
          <div className={classes.row}>
            {addresses.length > 1 && (
              <NativeSelect
                label="Address of this machine"
                value={address}
                data={[...addresses]}
                onChange={({ currentTarget: { value } }) => {
                  setChosen(value)
                  if (room) followers.open(value)
                }}
              />
            )}
            {room ? (
              <Button variant="default" onClick={followers.close}>
                Stop
              </Button>
            ) : (
              <Button onClick={() => followers.open(address)}>Let people follow</Button>
            )}
          </div>
        </div>
      )}
    </Modal>
  )
}

/** How many follow, in words. */
export function Who({ followers }: { readonly followers: Followers }) {
  const { followers: many, hands, room } = useStore(followers.now)
  if (!room) return null
  return (
    <p className="counts" role="status">
      {many === 0
        ? 'Nobody follows yet'
        : `${counted(many, 'is', 'are')} following${hands > 0 ? `, ${counted(hands, 'hand', 'hands')} up` : ''}`}
    </p>
  )
}

/** Where to join, with the key, as a code that a camera reads. */
function Scan({ url, code }: { readonly url: string; readonly code: string }) {
  const { path, size } = useMemo(() => {
    const { modules } = create(`${url}#${code}`, { errorCorrectionLevel: 'L' })
    const squares = Array.from({ length: modules.size ** 2 }, (_, i) => i)
    return {
      size: modules.size + 2 * QUIET,
      path: squares
        .filter((i) => modules.data[i])
        .map(
          (i) => `M${(i % modules.size) + QUIET} ${Math.floor(i / modules.size) + QUIET}h1v1h-1z`,
        )
        .join(''),
    }
  }, [url, code])
  return (
    <svg
      className={classes.scan}
      data-key={code}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label="A code to scan: it opens the page of those who follow"
      shapeRendering="crispEdges"
    >
      <path d={path} />
    </svg>
  )
}
