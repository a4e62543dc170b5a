import { Button, Group, Modal, NativeSelect, Progress } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { speechSeconds } from '../../audio/speech'
import { sideWord } from '../../core/body/side'
import { capital } from '../../core/capital'
import { USUAL_SOUND } from '../../core/class/soundChoice'
import { type Combination, teachTempoOf } from '../../core/combination/combination'
import { bothOf, type Dancing } from '../../core/combination/dancing'
import { practicePerformance } from '../../core/performance/stretches'
import type { Dancers } from '../../core/pose/dancers'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { download, fileName } from '../parts/files'
import { NumberField } from '../parts/NumberField'
import { inWords, Problem } from '../parts/Problem'
import { dancedOf } from '../stores/checked'
import { useServices } from '../stores/services'
import { coloursOf } from './openStage'
import { CLEARER } from './pictureWords'
import { filmPractice, type ToFilm, type VideoWish } from './practiceVideo'
import { stageChoice } from './stageChoice'

/** What is danced with a song, as it is heard when it is asked for. */
export type SongToFilm = () => Omit<ToFilm, 'songOf'>

interface VideoFormProps {
  readonly combination: Combination
  readonly dancersAt: (clearer: number) => Dancers
  readonly dancing: Dancing
  /** What is danced with a song; else the combination by itself. */
  readonly withSong: SongToFilm | undefined
  readonly onClose: () => void
}

type Sides = 'one' | 'turn' | 'beside'

/** A film of the figure with counts and cues, for practising at home. */
export function VideoForm({ combination, dancersAt, dancing, withSong, onClose }: VideoFormProps) {
  const { deck } = useServices()
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
    const wish: VideoWish = { beside: !withSong && sides === 'beside', view, size }
    const alone = (): Omit<ToFilm, 'songOf'> => ({
      performance: practicePerformance(
        dancedOf(combination),
        sides === 'turn' ? both : [dancing],
        tempo,
        speechSeconds(),
      ),
      heard: { mix: USUAL_SOUND.mix, loud: 0, own: new Map() },
      placeOf: (now) => `${capital(sideWord[now.dancing.side])} side · ${tempo}`,
    })
    const filmed = { ...(withSong?.() ?? alone()), songOf: (mark: string) => deck.soundOf(mark) }
    try {
      const colours = coloursOf(document.documentElement)
      const made = await filmPractice(
        filmed,
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
      {withSong ? (
        <p>
          All of it once, with its song as it is heard here. Where others are to hear it the music
          may need a licence.
        </p>
      ) : (
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
      )}
      <NativeSelect
        label="Seen from"
        mt="xs"
        value={view}
        disabled={done !== undefined}
        onChange={({ currentTarget }) => setView(currentTarget.value as View)}
        data={VIEWS.map((one) => ({ value: one, label: viewFacts[one].name }))}
      />
      {!withSong && (
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
      )}
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
