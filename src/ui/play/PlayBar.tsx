import { NativeSelect, SegmentedControl, Slider, Switch } from '@mantine/core'
import { memo, type Ref, useState } from 'react'
import { useStore } from 'zustand'
import type { Side } from '../../core/body/side'
import { hundredths, percent } from '../../core/song/rate'
import { FASTEST, type Tempo } from '../../core/time/tempo'
import { PlayButton } from '../parts/PlayButton'
import type { PlayDeck } from '../stores/deck'
import type { LoopMode, PlayChoice, SideMode } from './performances'
import classes from './play.module.css'
import { RateSlider } from './RateSlider'

interface PlayBarProps {
  readonly deck: PlayDeck
  readonly lead: Side
  readonly tempo: Tempo
  readonly teachTempo: Tempo
  readonly choice: PlayChoice
  /** The highest tempo at which nothing is hurried; absent where no tempo is slow enough. */
  readonly most: Tempo | undefined
  readonly onChoice: (choice: PlayChoice) => void
  readonly onPlayOrStop: () => void
  /** Set where it is danced to a song: its speed, and the tempo it has here then. */
  readonly song?:
    | { readonly rate: number; readonly here: Tempo; readonly onRate: (rate: number) => void }
    | undefined
  /** The count that sounds now is written here, frame by frame. */
  readonly countRef: Ref<HTMLSpanElement>
  readonly hearsMoves: boolean
  readonly onHearsMoves: (hears: boolean) => void
}

/** Play, side, loop and tempo at the bottom edge, in thumb reach. */
export const PlayBar = memo(function PlayBar(props: PlayBarProps) {
  const { deck, lead, tempo, teachTempo, most, choice, onChoice, onPlayOrStop, countRef, song } =
    props
  const playing = useStore(deck, (is) => is)
  const slow = Math.min(tempo, teachTempo)
  const fast = Math.max(tempo, teachTempo, slow + 1)
  const [isOpen, setOpen] = useState(false)
  return (
    <section className={classes.bar} aria-label="Play">
      <PlayButton playing={playing} className={classes.play} onClick={onPlayOrStop} />
      <span ref={countRef} className={`display counts ${classes.now}`} data-now />
      <div className={classes.more} data-open={isOpen}>
        <SegmentedControl
          className={classes.sides}
          aria-label="Side to dance"
          data={[
            { value: 'R', label: 'R side' },
            { value: 'L', label: 'L side' },
            { value: 'turn', label: lead === 'R' ? 'R then L' : 'L then R' },
          ]}
          value={choice.sides}
          onChange={(sides) => onChoice({ ...choice, sides: sides as SideMode })}
        />
        <NativeSelect
          className={classes.loop}
          aria-label="What to play again and again"
          data={[
            { value: 'all', label: 'All of it' },
            { value: 'phrase', label: 'This phrase' },
            { value: 'selection', label: 'Selected counts' },
          ]}
          value={choice.loop}
          onChange={({ currentTarget }) =>
            onChoice({ ...choice, loop: currentTarget.value as LoopMode })
          }
        />
      </div>
      {song ? (
        <SongSpeed {...song} most={most} />
      ) : (
        <div className={classes.tempo}>
          <span className={`counts ${classes.tempoNow}`}>{choice.tempo}</span>
          <div className={classes.slider}>
            <Slider
              thumbLabel="Tempo, counts a minute"
              label={null}
              min={slow}
              max={fast}
              value={choice.tempo}
              marks={most !== undefined && most >= slow && most <= fast ? [{ value: most }] : []}
              onChange={(value) => onChoice({ ...choice, tempo: value })}
              styles={{ track: { minWidth: 90 } }}
            />
            <div className={classes.ends}>
              <span>teach {slow}</span>
              <span
                className={classes.most}
                data-most={most}
                data-over={most === undefined || choice.tempo > most}
              >
                {most === undefined
                  ? 'too fast at any tempo'
                  : most >= 220
                    ? ''
                    : `works up to ${most}`}
              </span>
              <span>target {fast}</span>
            </div>
          </div>
        </div>
      )}
      <button
        type="button"
        className={classes.opens}
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Less' : 'Side, speed…'}
      </button>
      <div className={classes.more} data-open={isOpen}>
        {!song && (
          <NativeSelect
            className={classes.speed}
            aria-label="Speed"
            data={[
              { value: '1', label: 'At tempo' },
              { value: '0.5', label: 'Half as fast' },
              { value: '0.25', label: 'A quarter' },
            ]}
            value={String(choice.speed)}
            onChange={({ currentTarget }) =>
              onChoice({ ...choice, speed: Number(currentTarget.value) as PlayChoice['speed'] })
            }
          />
        )}
        <Switch
          className={classes.hears}
          label="Hear the moves"
          checked={props.hearsMoves}
          onChange={({ currentTarget }) => props.onHearsMoves(currentTarget.checked)}
        />
      </div>
    </section>
  )
})

/** How fast the song is played, of its own speed, and the tempo that comes to. */
function SongSpeed({
  rate,
  here,
  onRate,
  most,
}: NonNullable<PlayBarProps['song']> & Pick<PlayBarProps, 'most'>) {
  return (
    <div className={classes.tempo}>
      <span className={`counts ${classes.tempoNow}`}>{here}</span>
      <div className={classes.slider}>
        <RateSlider
          label="Speed of the song, of its own"
          speed={hundredths(rate)}
          onSpeed={(speed) => onRate(speed / 100)}
        />
        <div className={classes.ends}>
          <span>here, at {percent(rate)} of the song</span>
          <span
            className={classes.most}
            data-most={most}
            data-over={most === undefined || here > most}
          >
            {most === undefined || most >= FASTEST ? '' : `works up to ${most}`}
          </span>
        </div>
      </div>
    </div>
  )
}
