import { Button, Textarea } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useState } from 'react'
import {
  cameWords,
  pageWords,
  readReturns,
  type SentPage,
  withReturn,
} from '../../core/practice/sentPage'
import { FilesButton } from '../parts/FilesButton'
import { counted, dayWords } from '../parts/locale'
import { inWords, Problem } from '../parts/Problem'
import { useFileDrop } from '../parts/useFileDrop'
import { today } from '../planning/today'
import classes from './diary.module.css'

/** Practice pages that were sent out, and what students sent back of them. */
export function SentBack({
  pages,
  newId,
  onChange,
}: {
  readonly pages: readonly SentPage[]
  readonly newId: () => string
  readonly onChange: (page: SentPage, make: (now: SentPage) => SentPage, label: string) => void
}) {
  const [text, setText] = useState('')
  const [errors, setErrors] = useState<readonly { readonly id: string; readonly error: unknown }[]>(
    [],
  )
  const [said, setSaid] = useState('')
  const dropped = useFileDrop((files) => void takeFiles(files))
  /** @returns what was wrong, and how many came in */
  const take = (texts: readonly string[]) => {
    const wrong: { id: string; error: unknown }[] = []
    const now = new Map(pages.map((page) => [page.id, page]))
    let came = 0
    for (const one of texts)
      try {
        for (const read of readReturns(one, pages)) {
          const page = now.get(read.page)
          if (!page) continue
          const id = newId()
          const after = withReturn(page, read, id, today())
          now.set(page.id, after)
          onChange(
            page,
            (stored) => ({ ...stored, returns: [...stored.returns, ...after.returns.slice(-1)] }),
            'what was sent back',
          )
          came++
        }
      } catch (error) {
        wrong.push({ id: newId(), error })
      }
    setErrors(wrong)
    setSaid(came > 0 ? `${counted(came, 'return')} opened.` : '')
    return wrong.length === 0
  }
  const takeFiles = async (files: readonly File[]) =>
    take(await Promise.all(files.map((file) => file.text())))
  return (
    <section className={classes.sent} aria-label="Sent back" {...dropped}>
      <h2 className="display">Sent back</h2>
      {pages.length === 0 && (
        <p className={classes.quiet}>
          No practice page yet. Save one in Teach: what students send back of it is opened here.
        </p>
      )}
      {pages.map((page) => (
        <details key={page.id}>
          <summary>
            <b>
              {page.title}
              {page.whose && ` · ${page.whose}`}
            </b>{' '}
            {dayWords(page.made)}: {pageWords(page)}
          </summary>
          <ul>
            {page.returns.map((one) => (
              <li key={one.id}>
                {cameWords(one)}
                <button
                  type="button"
                  aria-label={`Take out what ${one.who || 'somebody'} sent back`}
                  onClick={() =>
                    onChange(
                      page,
                      (now) => ({ ...now, returns: now.returns.filter(({ id }) => id !== one.id) }),
                      'taking out a return',
                    )
                  }
                >
                  <IconX size={16} />
                </button>
              </li>
            ))}
          </ul>
        </details>
      ))}
      {pages.length > 0 && (
        <>
          <Textarea
            label="Paste what was sent"
            autosize
            minRows={2}
            maxRows={5}
            value={text}
            onChange={({ currentTarget: { value } }) => setText(value)}
          />
          <div className={classes.sentButtons}>
            <Button
              size="compact-md"
              disabled={text.trim() === ''}
              onClick={() => {
                if (take([text])) setText('')
              }}
            >
              Open it
            </Button>
            <FilesButton
              accept=".json,.txt"
              label="Open returns"
              size="compact-md"
              variant="default"
              onFiles={(files) => void takeFiles(files)}
            >
              Open files
            </FilesButton>
          </div>
          <p role="status">{said}</p>
          {errors.map(({ id, error }) => (
            <Problem key={id} {...inWords(error)} />
          ))}
          <p className={classes.quiet}>
            What is told weighs half of what you saw. It stays in this browser, and is in a backup
            only where you say so.
          </p>
        </>
      )}
    </section>
  )
}
