import { Button, Group, Modal, NativeSelect, Progress } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { speechSeconds } from '../../audio/speech'
import { sideWord } from '../../core/body/side'
import { capital } from '../../core/capital'
import { USUAL_SOUND } from '../../core/class/soundChoice'
import { type Combination, teachTempoOf } from '../../core/combination/combination'
import { bothOf, type Dancing } from '../../core/combination/dancing'
import { chaptersOf, chapterText, chapterVtt } from '../../core/lesson/chapters'
import { type LessonFilm, lessonFilm } from '../../core/lesson/lessonFilm'
import { practicePerformance } from '../../core/performance/stretches'
import type { Dancers } from '../../core/pose/dancers'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import { pageDataOf } from '../../core/practice/makePage'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { download, fileName } from '../parts/files'
import { NumberField } from '../parts/NumberField'
import { inWords, Problem } from '../parts/Problem'
import { today } from '../planning/today'
import { dancedOf } from '../stores/checked'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { words } from '../stores/words'
import { coloursOf } from './openStage'
import { CLEARER } from './pictureWords'
import { filmPractice, SIZES, type ToFilm, type VideoWish } from './practiceVideo'
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
  const [size, setSize] = useState<VideoWish['size']>('large')
  const [what, setWhat] = useState<'through' | 'lesson'>('through')
  const [format, setFormat] = useState<string>()
  useEffect(() => {
    const [width, height] = SIZES[size]
    let isHere = true
    void import('../../dancer/video')
      .then(({ formatHere }) => formatHere({ width, height }))
      .then((found) => isHere && setFormat(found?.name ?? 'none'))
    return () => {
      isHere = false
    }
  }, [size])
  const isLesson = what === 'lesson' && !withSong
  const [tempo, setTempo] = useState(() => teachTempoOf(combination))
  const [clearer, setClearer] = useState(1)
  const [done, setDone] = useState<number>()
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  const [chapters, setChapters] = useState<{ text: string; lesson: LessonFilm }>()
  const both = bothOf(combination, dancing.part)
  const chunksNow = () =>
    pageDataOf(combination, words.getState().vocabulary, houseNow.getState().rules, {
      made: today(),
      part: combination.parts && dancing.part,
    }).chunks
  const running = useRef<AbortController>(undefined)
  useEffect(() => () => running.current?.abort(), [])

  const film = async () => {
    const stop = new AbortController()
    running.current = stop
    setProblem(undefined)
    setDone(0)
    const wish: VideoWish = {
      beside: !withSong && !isLesson && sides === 'beside',
      view,
      size,
    }
    const placeOf: ToFilm['placeOf'] = (now) =>
      `${capital(sideWord[now.dancing.side])} side · ${tempo}`
    const alone = (): Omit<ToFilm, 'songOf'> => ({
      performance: practicePerformance(
        dancedOf(combination),
        sides === 'turn' ? both : [dancing],
        tempo,
        speechSeconds(),
      ),
      heard: { mix: USUAL_SOUND.mix, loud: 0, own: new Map() },
      placeOf,
    })
    const lesson = isLesson
      ? lessonFilm(dancedOf(combination), chunksNow(), { dancing, tempo, speech: speechSeconds() })
      : undefined
    const filmed = {
      ...(withSong?.() ?? alone()),
      ...(lesson && { performance: lesson.performance, holds: lesson.holds }),
      songOf: (mark: string) => deck.soundOf(mark),
    }
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
      if (made) {
        const end = made.type.includes('mp4') ? 'mp4' : 'webm'
        download(
          fileName(combination.title, `${isLesson ? '-lesson' : '-practice'}.${end}`),
          made,
          made.type,
        )
        setChapters(lesson && { text: chapterText(chaptersOf(lesson.chapters)), lesson })
      }
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
        <>
          <NativeSelect
            label="What"
            value={what}
            onChange={({ currentTarget }) =>
              setWhat(currentTarget.value === 'lesson' ? 'lesson' : 'through')
            }
            disabled={done !== undefined}
            data={[
              { value: 'through', label: 'danced through' },
              { value: 'lesson', label: 'a lesson: part by part, with pauses' },
            ]}
          />
          {!isLesson && (
            <NativeSelect
              mt="xs"
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
        </>
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
          { value: 'upright', label: '720 × 1280, upright' },
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
      {format !== undefined && (
        <p>
          {format === 'none'
            ? 'This browser can’t make videos.'
            : `It will be ${format === 'MP4' ? 'an MP4' : 'a WebM'} file${format === 'WebM' ? ': this browser writes no MP4' : ''}.`}
        </p>
      )}
      {chapters && chapters.text !== '' && (
        <section aria-label="Chapters">
          <pre>{chapters.text}</pre>
          <Button
            variant="default"
            size="compact-sm"
            onClick={() =>
              download(
                fileName(combination.title, '-chapters.vtt'),
                chapterVtt(chaptersOf(chapters.lesson.chapters), chapters.lesson.seconds),
                'text/vtt',
              )
            }
          >
            Save the chapters
          </Button>
        </section>
      )}
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
