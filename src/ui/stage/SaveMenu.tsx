import { Menu } from '@mantine/core'
import { lazy, Suspense, useState } from 'react'
import { type Side, sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { placeIn } from '../../core/combination/names'
import { passAt } from '../../core/combination/passes'
import { keyPosesOf } from '../../core/pose/keyPoses'
import { posesSvg } from '../../core/pose/posesSvg'
import { viewFacts } from '../../core/pose/views'
import { HALF_COUNT, labelOfTick, tick } from '../../core/time/time'
import type { Dancers } from '../../figure/frames'
import classes from './stage.module.css'
import { stageChoice } from './stageChoice'

const VideoForm = lazy(async () => ({ default: (await import('./VideoForm')).VideoForm }))

interface SaveMenuProps {
  readonly combination: Combination
  readonly dancers: Dancers
  readonly side: Side
  readonly at: number
  /** The picture that is on the stage now; absent where there is none to take. */
  readonly picture: (() => Promise<Blob | null>) | undefined
}

const MOST_POSES = 8

/** The pose as a picture, the key poses of a phrase, and a practice video. */
export function SaveMenu({ combination, dancers, side, at, picture }: SaveMenuProps) {
  const [films, setFilms] = useState(false)
  const dancer = dancers[side]
  const pass = passAt(dancer.simulation.passes, at)
  const name = pass?.phrase.name ?? ''
  const savePose = async () => {
    const { download, fileName } = await import('../combinations/files')
    const made = await picture?.()
    const count = pass
      ? labelOfTick(tick(Math.floor((at - pass.at) / HALF_COUNT) * HALF_COUNT))
      : ''
    if (made) download(fileName(`${combination.title} ${name}${count}`, '.png'), made, 'image/png')
  }
  const savePoses = async () => {
    if (!pass) return
    const { download, fileName } = await import('../combinations/files')
    const { view } = stageChoice.get()
    const poses = keyPosesOf(dancer, pass, HALF_COUNT, MOST_POSES).map(({ tick: when, pose }) => ({
      pose,
      label: placeIn(name, labelOfTick(tick(when - pass.at))),
    }))
    const title = `${combination.title}, phrase ${name}, ${sideWord[side]} side`
    const svg = posesSvg(title, viewFacts[view].whose, poses, view)
    download(fileName(`${combination.title} ${name} poses`, '.svg'), svg, 'image/svg+xml')
  }
  return (
    <>
      <Menu returnFocus={false} position="bottom-end">
        <Menu.Target>
          <button type="button" className={classes.choice}>
            Save
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {picture && <Menu.Item onClick={() => void savePose()}>This pose as a picture</Menu.Item>}
          <Menu.Item onClick={() => void savePoses()}>Key poses of phrase {name}</Menu.Item>
          <Menu.Item onClick={() => setFilms(true)}>Practice video…</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {films && (
        <Suspense>
          <VideoForm
            combination={combination}
            dancers={dancers}
            side={side}
            onClose={() => setFilms(false)}
          />
        </Suspense>
      )}
    </>
  )
}
