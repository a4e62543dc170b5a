import { NativeSelect, Slider, Switch } from '@mantine/core'
import type { Ref } from 'react'
import type { Stretch } from '../../core/song/stretch'
import { PlayButton } from '../parts/PlayButton'
import bar from '../play/play.module.css'
import { RateSlider } from '../play/RateSlider'
import classes from './song.module.css'
import type { SongChoice } from './songChoice'

const STRETCH_WORDS: Readonly<Record<Stretch, string>> = {
  once: 'From here on',
  phrase: 'This phrase, repeated',
  section: 'This section, repeated',
  selection: 'Selected counts, repeated',
}

/** Play, what is repeated, speed, and what is heard with it, in thumb reach. */
export function SongBar({
  playing,
  choice,
  tempo,
  canPlay,
  countRef,
  onChoice,
  onPlayOrStop,
}: {
  readonly playing: boolean
  readonly choice: SongChoice
  /** Counts a minute here, at its own speed. */
  readonly tempo: number
  readonly canPlay: boolean
  readonly countRef: Ref<HTMLSpanElement>
  readonly onChoice: (choice: SongChoice) => void
  readonly onPlayOrStop: () => void
}) {
  return (
    <section className={`${bar.bar} ${classes.bar}`} aria-label="Play">
      <PlayButton
        playing={playing}
        className={bar.play}
        disabled={!canPlay && !playing}
        onClick={onPlayOrStop}
      />
      <span ref={countRef} className={`display counts ${classes.now}`} data-now />
      <NativeSelect
        className={`${bar.loop} ${classes.stretch}`}
        aria-label="What is played"
        data={Object.entries(STRETCH_WORDS).map(([value, label]) => ({ value, label }))}
        value={choice.stretch}
        onChange={({ currentTarget }) =>
          onChoice({ ...choice, stretch: currentTarget.value as Stretch })
        }
      />
      <div className={bar.tempo}>
        <span className={`counts ${bar.tempoNow}`}>{Math.round((tempo * choice.speed) / 100)}</span>
        <div className={bar.slider}>
          <RateSlider
            label="Speed, per cent of its own"
            speed={choice.speed}
            onSpeed={(speed) => onChoice({ ...choice, speed })}
          />
          <div className={bar.ends}>
            <span data-speed={choice.speed}>{choice.speed} % of its speed</span>
          </div>
        </div>
      </div>
      <Switch
        label="Clicks"
        checked={choice.isClicked}
        onChange={({ currentTarget }) => onChoice({ ...choice, isClicked: currentTarget.checked })}
      />
      <Switch
        label="Numbers"
        checked={choice.isNumbered}
        onChange={({ currentTarget }) => onChoice({ ...choice, isNumbered: currentTarget.checked })}
      />
      <Switch
        label="Count in"
        checked={choice.isCountedIn}
        onChange={({ currentTarget }) =>
          onChoice({ ...choice, isCountedIn: currentTarget.checked })
        }
      />
      {choice.stretch !== 'once' && (
        <Switch
          label="And up"
          title="A little quicker after every second round, up to its own speed"
          checked={choice.isRising}
          onChange={({ currentTarget }) => onChoice({ ...choice, isRising: currentTarget.checked })}
        />
      )}
      <div className={classes.loud}>
        <span aria-hidden>Song</span>
        <Slider
          thumbLabel="How loud the song is"
          label={null}
          min={0}
          max={1}
          step={0.05}
          value={choice.loud}
          onChange={(loud) => onChoice({ ...choice, loud })}
        />
      </div>
    </section>
  )
}
