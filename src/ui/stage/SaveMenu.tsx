import { Menu } from '@mantine/core'
import { lazy, Suspense, useState } from 'react'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import { placeIn } from '../../core/combination/names'
import { passAt } from '../../core/combination/passes'
import type { Dancers } from '../../core/pose/dancers'
import { keyPosesOf } from '../../core/pose/keyPoses'
import { posesSvg } from '../../core/skin/posesSvg'
import { HALF_COUNT, labelIn, tick } from '../../core/time/time'
import type { StageColours } from '../../dancer/onStage'
import { focusBraidAfter } from '../parts/focusBraid'
import { dancerNow } from '../stores/dancer'
import { pictureWords } from './pictureWords'
import classes from './stage.module.css'
import { stageChoice } from './stageChoice'
import type { SongToFilm } from './VideoForm'

const VideoForm = lazy(async () => ({ default: (await import('./VideoForm')).VideoForm }))

interface SaveMenuProps {
  readonly combination: Combination
  /** Who dances it, with isolations so many times as large as they are danced. */
  readonly dancersAt: (clearer: number) => Dancers
  readonly dancing: Dancing
  readonly at: number
  /** The theme's colours as they are on the stage now. */
  readonly colours: () => StageColours
  /** What is danced with a song, where that is so. */
  readonly withSong: SongToFilm | undefined
  /** Whether the stage draws in space; else it draws flat. */
  readonly inSpace: boolean
}

const MOST_POSES = 8
/** Pixels across: for paper and a screen on the wall, or for a message. */
const PICTURES = [
  { width: 1600, words: 'large' },
  { width: 800, words: 'small' },
] as const

/** The pose as a picture, the key poses of a phrase, and a practice video. */
export function SaveMenu({
  combination,
  dancersAt,
  dancing,
  at,
  colours,
  withSong,
  inSpace,
}: SaveMenuProps) {
  const [films, setFilms] = useState(false)
  const shown = useStore(stageChoice, (s) => s.clearer)
  // As it is danced, unless who saves it says otherwise.
  const [isAsShown, setAsShown] = useState(false)
  const percent = `${Math.round(shown * 100)} %`
  const dancers = dancersAt(isAsShown ? shown : 1)
  const dancer = dancers(dancing)
  const pass = passAt(dancer.simulation.passes, at)
  const name = pass?.phrase.name ?? ''
  const savePose = async (width: number) => {
    const [{ download, fileName }, { posePicture }] = await Promise.all([
      import('../parts/files'),
      import('./posePicture'),
    ])
    const label = labelIn(pass?.phrase ?? { counts: 8 })
    const place = pass
      ? placeIn(name, label(tick(Math.floor((at - pass.at) / HALF_COUNT) * HALF_COUNT)))
      : ''
    const made = await posePicture({
      combination,
      dancers,
      dancing,
      at,
      place,
      choice: stageChoice.getState(),
      colours: colours(),
      width,
      inSpace,
    })
    if (made) download(fileName(`${combination.title} ${place}`, '.png'), made, 'image/png')
  }
  const savePoses = async (asPicture: boolean) => {
    if (!pass) return
    const { download, fileName } = await import('../parts/files')
    const choice = stageChoice.getState()
    const { view } = choice
    const poses = keyPosesOf(dancer, pass, HALF_COUNT, MOST_POSES).map(({ tick: when, pose }) => ({
      pose,
      at: when,
      label: placeIn(name, labelIn(pass.phrase)(tick(when - pass.at))),
    }))
    const title = `${combination.title}, phrase ${name}, ${sideWord[dancing.side]} side`
    if (asPicture) {
      const { posesPicture } = await import('./posePicture')
      const wish = {
        combination,
        dancers,
        dancing,
        choice: { ...choice, both: false },
        colours: colours(),
      }
      const made = await posesPicture(wish, title, poses)
      if (made) download(fileName(`${combination.title} ${name} poses`, '.png'), made, 'image/png')
      return
    }
    const { look } = dancerNow.getState()
    const svg = posesSvg(title, pictureWords(view, dancer), poses, view, {
      look,
      families: combination.families,
    })
    download(fileName(`${combination.title} ${name} poses`, '.svg'), svg, 'image/svg+xml')
  }
  return (
    <>
      <Menu returnFocus={false} onExitTransitionEnd={focusBraidAfter} position="bottom-end">
        <Menu.Target>
          <button type="button" className={classes.choice}>
            Save
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {shown > 1 && (
            <Menu.Item closeMenuOnClick={false} onClick={() => setAsShown(!isAsShown)}>
              {isAsShown
                ? `Isolations are saved at ${percent}: save them as danced`
                : `Isolations are saved as danced: save them at ${percent}`}
            </Menu.Item>
          )}
          {PICTURES.map(({ width, words }) => (
            <Menu.Item key={width} onClick={() => void savePose(width)}>
              This pose as a picture, {words}
            </Menu.Item>
          ))}
          {inSpace && (
            <Menu.Item onClick={() => void savePoses(true)}>
              Poses of phrase {name} as one picture
            </Menu.Item>
          )}
          <Menu.Item onClick={() => void savePoses(false)}>
            Key poses of phrase {name} to print
          </Menu.Item>
          <Menu.Item onClick={() => setFilms(true)}>Practice video…</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {films && (
        <Suspense>
          <VideoForm
            combination={combination}
            dancersAt={dancersAt}
            dancing={dancing}
            withSong={withSong}
            onClose={() => setFilms(false)}
          />
        </Suspense>
      )}
    </>
  )
}
