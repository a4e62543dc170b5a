import { ActionIcon, Button, TextInput } from '@mantine/core'
import { IconMicrophone, IconPlayerStopFilled, IconTrash } from '@tabler/icons-react'
import { useRef, useState } from 'react'
import { hasWords, type Recording, trimmedRecording } from '../../audio/speech'
import { cuesOf } from '../../core/calling/cues'
import type { Drill } from '../../core/plan/drill'
import { type Materials, roundOf } from '../../core/plan/material'
import { folded } from '../../core/record/folded'
import type { SpokenWords } from '../../storage/planning'
import classes from './class.module.css'

interface OwnWordsProps {
  readonly spoken: SpokenWords
  readonly own: ReadonlyMap<string, Recording>
  readonly drill: Drill | undefined
  readonly materials: Materials
}

const MOST_MS = 2500

/** The instructor's own voice for a word: recorded here, trimmed, kept in this browser. */
export function OwnWords({ spoken, own, drill, materials }: OwnWordsProps) {
  const [text, setText] = useState('')
  const [state, setState] = useState<string>()
  const stop = useRef<(() => void) | undefined>(undefined)
  const round = drill && roundOf(drill, materials)
  const cues = round
    ? round.passes.flatMap((pass) => cuesOf(round.material.lead, pass, drill.layers))
    : []
  const missing = [...new Set(cues.map((cue) => cue.text))].filter(
    (cue) => !hasWords(cue) && !own.has(folded(cue)),
  )
  const record = async () => {
    const word = text.trim()
    if (word === '') return
    let take: Recording | undefined
    try {
      take = await recordWord((end) => {
        stop.current = end
        setState('Listening… say it now.')
      })
    } catch {
      setState(
        'There is no microphone here, or it is not allowed. Allow it in the address bar and try again.',
      )
      return
    } finally {
      stop.current = undefined
    }
    if (!take) {
      setState('Nothing was heard. Come closer and say it again.')
      return
    }
    try {
      await spoken.save({ text: word, ...take })
      setState(`“${word}” is kept.`)
      setText('')
    } catch {
      setState(`“${word}” could not be kept: make room on the disk, then say it again.`)
    }
  }
  return (
    <section className={classes.words} aria-label="Your own words">
      <h2 className="display">Your own words</h2>
      {missing.length > 0 && (
        <p>
          No word yet for{' '}
          {missing.map((cue) => (
            <Button key={cue} size="compact-xs" variant="default" onClick={() => setText(cue)}>
              {cue}
            </Button>
          ))}
          : a tone sounds, and the caption is there.
        </p>
      )}
      <div className={classes.record}>
        <TextInput
          aria-label="Word or cue"
          placeholder="Word or cue"
          value={text}
          onChange={({ currentTarget: { value } }) => setText(value)}
        />
        {stop.current ? (
          <Button leftSection={<IconPlayerStopFilled size={15} />} onClick={() => stop.current?.()}>
            Done
          </Button>
        ) : (
          <Button
            variant="default"
            leftSection={<IconMicrophone size={16} />}
            disabled={text.trim() === ''}
            onClick={() => void record()}
          >
            Say it
          </Button>
        )}
      </div>
      {state && <p role="status">{state}</p>}
      <ul>
        {[...own.keys()].map((id) => (
          <li key={id}>
            {id}
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Forget ${id}`}
              onClick={() => void spoken.remove(id)}
            >
              <IconTrash size={16} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </section>
  )
}

/**
 * Records until it is stopped, or a moment; undefined where nothing was heard.
 * @throws where there is no microphone.
 */
async function recordWord(begun: (stop: () => void) => void): Promise<Recording | undefined> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
  try {
    const recorder = new MediaRecorder(stream)
    const pieces: Blob[] = []
    recorder.ondataavailable = ({ data }) => pieces.push(data)
    const done = new Promise<void>((resolve) => {
      recorder.onstop = () => resolve()
    })
    recorder.start()
    const end = () => recorder.state !== 'inactive' && recorder.stop()
    begun(end)
    const late = setTimeout(end, MOST_MS)
    await done
    clearTimeout(late)
    const context = new OfflineAudioContext(1, 1, 48_000)
    const buffer = await context.decodeAudioData(await new Blob(pieces).arrayBuffer())
    return trimmedRecording(buffer.getChannelData(0), buffer.sampleRate)
  } finally {
    for (const track of stream.getTracks()) track.stop()
  }
}
