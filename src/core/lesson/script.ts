import { otherSide, type Side, sideWord } from '../body/side'
import type { Chunk } from '../practice/pageData'

/** How who films stands to the camera: as the mirror of who looks, or with her back to them. */
export type FilmStand = 'mirror' | 'back'

/** One thing to do before the camera. */
export interface LessonStep {
  readonly kind:
    | 'hello'
    | 'show'
    | 'walk'
    | 'try'
    | 'pause'
    | 'other-side'
    | 'from-top'
    | 'music'
    | 'end'
  /** Where a chapter begins: what it is called. */
  readonly chapter?: string
  readonly title: string
  /** How to stand. */
  readonly stand: FilmStand
  /** What to say, a line each. */
  readonly say: readonly string[]
}

/** What is said where they are to stop the film. */
export const PAUSE = 'Pause here and dance it twice.'

const STANDS: Readonly<Record<FilmStand, string>> = {
  mirror: 'You see me as your mirror: my right is on your right.',
  back: 'You see my back: my right is your right.',
}

export const chapterOf = ({ name, title }: Pick<Chunk, 'name' | 'title'>): string =>
  [name, title].filter(Boolean).join(' · ')

const OTHER: Readonly<Record<FilmStand, FilmStand>> = { mirror: 'back', back: 'mirror' }

interface Lesson {
  readonly title: string
  readonly lead: Side
  readonly chunks: readonly Chunk[]
  /** How most of it is filmed. */
  readonly stand: FilmStand
}

/**
 * The script of a lesson on film, from the very chunks a practice page has: what to show from which
 * view, what to say, and where who looks is to stop it.
 */
export function lessonScript({ title, lead, chunks, stand }: Lesson): readonly LessonStep[] {
  const step = (
    kind: LessonStep['kind'],
    of: string,
    say: readonly string[],
    more: Partial<LessonStep> = {},
  ): LessonStep => ({ kind, title: of, stand, say, ...more })
  const pause = (of: string) => step('pause', `Pause · ${of}`, [PAUSE])
  return [
    step(
      'hello',
      'Hello',
      [
        `Hello. This is ${title || 'what we dance'}${chunks.length > 1 ? `, in ${chunks.length} parts` : ''}.`,
        STANDS[stand],
        'Warm up first, and stop where anything hurts.',
      ],
      { chapter: 'Hello' },
    ),
    ...chunks.flatMap((chunk): readonly LessonStep[] => {
      const of = chapterOf(chunk)
      const does = new Set(chunk.stops.map((stop) => stop.do))
      return [
        step('show', `Show ${of}`, ['Only watch.', 'Once at its tempo, once slowly.'], {
          chapter: of,
        }),
        // The way of the feet is seen best from behind.
        step('walk', `Walk ${of}`, chunk.say, { stand: 'back' }),
        step('try', `Dance ${of}`, ['Counted in, twice, slowly, every word said.']),
        pause(of),
        ...(does.has('other-side')
          ? [
              step('other-side', `Other side · ${of}`, [
                `Now from the ${sideWord[otherSide[lead]]}.`,
              ]),
              pause(`${of}, ${sideWord[otherSide[lead]]}`),
            ]
          : []),
        ...(does.has('from-top')
          ? [
              step('from-top', `From the top to ${chunk.name}`, ['From the top to here, twice.']),
              pause(`to ${chunk.name}`),
            ]
          : []),
      ]
    }),
    step('music', 'With the music', ['Now with the music: all of it, from the top.'], {
      chapter: 'With the music',
    }),
    step(
      'end',
      'The end',
      ['Once more from the other view, for who wants to check.', 'Well danced. See you in class.'],
      { stand: OTHER[stand], chapter: 'The other view, and goodbye' },
    ),
  ]
}

/** How somebody stands, as it is said to who films. */
export const standWords = (stand: FilmStand): string =>
  stand === 'mirror' ? 'facing the camera, as their mirror' : 'your back to the camera'
