import { Button, CloseButton } from '@mantine/core'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import classes from './opened.module.css'
import { openings, tellOpened } from './opening'
import { Problem } from './Problem'

const close = () => tellOpened([])

/** Files that are being opened, and how each of the last ones fared. */
export function Opened() {
  const { reports, going } = useStore(openings)
  const good = reports.filter(({ ok }) => ok)
  const bad = reports.filter(({ ok }) => !ok)
  return (
    <>
      {going && (
        <p className={classes.going} role="status">
          {going.text}{' '}
          <Button size="compact-sm" variant="default" onClick={() => going.stop.abort()}>
            Stop
          </Button>
        </p>
      )}
      {reports.length > 0 && (
        <section aria-label="Opened files" className={classes.reports}>
          {bad.map(({ name, text }) => (
            <Problem key={name} what={name} toDo={text} onClose={close} />
          ))}
          {good.length > 0 && (
            <div className={classes.good}>
              <ul role="status">
                {good.map(({ name, text, id }) => (
                  <li key={`${name}${text}`}>
                    <b>{name}</b> {text}{' '}
                    {id && (
                      <Link to={`/combination/${id}`} onClick={close}>
                        Open it
                      </Link>
                    )}
                  </li>
                ))}
              </ul>
              <CloseButton aria-label="Close" onClick={close} />
            </div>
          )}
        </section>
      )}
    </>
  )
}
