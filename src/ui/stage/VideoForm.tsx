import { Button, Group, Modal, NativeSelect, Progress } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import { type Combination, teachTempoOf } from '../../core/combination/combination'
import { bothOf, type Dancing } from '../../core/combination/dancing'
import type { Dancers } from '../../core/pose/dancers'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { download, fileName } from '../parts/files'
import { NumberField } from '../parts/NumberField'
import { inWords, Problem } from '../parts/Problem'
import { coloursOf } from './openStage'
import { CLEARER } from './pictureWords'
import { filmPractice, type VideoWish } from './practiceVideo'
import { stageChoice } from './stageChoice'

interface VideoFormProps {
  readonly combination: Combination
  readonly dancersAt: (clearer: number) => Dancers
  readonly dancing: Dancing
  readonly onClose: () => void
}

type Sides = 'one' | 'turn' | 'beside'

/** A film of the figure with counts and cues, for practising at home. */
export function VideoForm({ combination, dancersAt, dancing, onClose }: VideoFormProps) {
  const first = useStore(stageChoice, (s) => s.view)
  const [view, setView] = useState<View>(first)
  const [sides, setSides] = useState<Sides>('turn')
  const [tempo, setTempo] = useState(() => teachTempoOf(combination))
  const [size, setSize] = useState<VideoWish['size']>('large')
  const [clearer, setClearer] = useState(1)
  const [done, setDone] = useState<number>()
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  const both = bothOf(combination, dancing.part)
  const running = useRef<AbortController>(undefined)
  useEffect(() => () => running.current?.abort(), [])

  const film = async () => {
    const stop = new AbortController()
    running.current = stop
    setProblem(undefined)
    setDone(0)
    const wish: VideoWish = {
      dancings: sides === 'turn' ? both : [dancing],
      beside: sides === 'beside',
      view,
      tempo,
      size,
    }
    try {
      const colours = coloursOf(document.documentElement)
      const made = await filmPractice(
        combination,
        dancersAt(clearer),
        wish,
        colours,
        setDone,
        stop.signal,
      )
      if (made) download(fileName(combination.title, '-practice.webm'), made, made.type)
    } catch (error) {
      setProblem(inWords(error))
    }
    running.current = undefined
    setDone(undefined)
  }
  return (
    <Modal opened onClose={onClose} title="Practice video" centered size="md">
      <NativeSelect
        label="Sides"
        value={sides}
        onChange={({ currentTarget }) => setSides(currentTarget.value as Sides)}
        disabled={done !== undefined}
        data={[
          {
            value: 'turn',
            label: both.map(({ side }) => sideWord[side]).join(', then '),
          },
          { value: 'one', label: `only the ${sideWord[dancing.side]} side` },
          { value: 'beside', label: 'both next to each other, in step' },
        ]}
      />
      <NativeSelect
        label="Seen from"
        mt="xs"
        value={view}
        disabled={done !== undefined}
        onChange={({ currentTarget }) => setView(currentTarget.value as View)}
        data={VIEWS.map((one) => ({ value: one, label: viewFacts[one].name }))}
      />
      <NumberField
        size="sm"
        label="Counts a minute"
        mt="xs"
        min={SLOWEST}
        max={FASTEST}
        value={tempo}
        disabled={done !== undefined}
        onCommit={setTempo}
      />
      <NativeSelect
        label="Size"
        mt="xs"
        value={size}
        disabled={done !== undefined}
        onChange={({ currentTarget }) => setSize(currentTarget.value as VideoWish['size'])}
        data={[
          { value: 'large', label: '1280 × 720' },
          { value: 'small', label: '640 × 360' },
        ]}
      />
      <NativeSelect
        label="Isolations"
        description="More than 100 % is larger than it is danced, and said in the film."
        mt="xs"
        value={String(clearer)}
        disabled={done !== undefined}
        onChange={({ currentTarget }) => setClearer(Number(currentTarget.value))}
        data={CLEARER}
      />
      {problem && <Problem {...problem} />}
      {done !== undefined && (
        <Progress mt="md" value={done * 100} aria-label="How much is filmed" />
      )}
      <Group mt="md">
        {done === undefined ? (
          <Button onClick={() => void film()}>Film it</Button>
        ) : (
          <Button variant="default" onClick={() => running.current?.abort()}>
            Stop
          </Button>
        )}
      </Group>
    </Modal>
  )
}
