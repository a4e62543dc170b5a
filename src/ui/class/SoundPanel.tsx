import { NativeSelect, SegmentedControl, Slider, Switch, TextInput } from '@mantine/core'
import { CHANNELS } from '../../audio/sounds'
import type { SoundChoice } from '../../core/class/soundChoice'
import type { Drill } from '../../core/plan/drill'
import type { Materials } from '../../core/plan/material'
import { RHYTHMS } from '../../core/rhythm/rhythms'
import type { Planning } from '../../storage/planning'
import { KeyLines } from '../parts/KeyLines'
import type { KeyLine } from '../parts/keys'
import classes from './class.module.css'
import { OwnWords } from './OwnWords'
import { SaveSound } from './SaveSound'
import type { useSound } from './useCaller'

/** All that has a loudness of its own. */
const LOUD = [...CHANNELS, 'music'] as const

const LOUD_WORDS: Readonly<Record<(typeof LOUD)[number], string>> = {
  click: 'Counts',
  half: 'Half counts',
  rhythm: 'Rhythm',
  voice: 'Voice',
  moves: 'Moves',
  music: 'Music',
}

const CALL_WORDS: Readonly<Record<SoundChoice['call'], string>> = {
  rounds: 'numbers and names first, then names',
  all: 'numbers and cues, always',
  cues: 'cues only',
  switch: 'only the switch',
  none: 'nothing; captions only',
}

interface SoundPanelProps {
  readonly sound: ReturnType<typeof useSound>
  readonly planning: Planning
  readonly drill: Drill | undefined
  readonly materials: Materials
  readonly title: string
  readonly keys: readonly KeyLine[]
}

/** What is heard on the floor, how loud, in whose voice, and the same as a file. */
const EXTRA_WORDS = {
  praise: 'Praise after a round',
  watch: 'What to watch, once a round from the second on',
  breathe: '“Breathe”, once in sixteen counts',
} as const

const MOST_PRAISE = 12
const MOST_LETTERS = 40

const wordsIn = (text: string): readonly string[] =>
  text
    .split(',')
    .map((word) => word.trim().slice(0, MOST_LETTERS))
    .filter((word) => word !== '')
    .slice(0, MOST_PRAISE)

export function SoundPanel({ sound, planning, drill, materials, title, keys }: SoundPanelProps) {
  const { choice, choose, own } = sound
  const canSpeak = typeof speechSynthesis !== 'undefined' && speechSynthesis.getVoices().length > 0
  return (
    <div className={classes.sound}>
      <NativeSelect
        label="Rhythm"
        data={[
          { value: 'own', label: 'Match the dance family' },
          { value: 'none', label: 'Clicks only' },
          ...RHYTHMS.map(({ id, name, counts, feel }) => ({
            value: id,
            label: `${name} · ${counts} counts · ${feel}`,
          })),
        ]}
        value={choice.rhythm}
        onChange={({ currentTarget: { value } }) => choose({ rhythm: value })}
      />
      <NativeSelect
        label="Called"
        data={(Object.keys(CALL_WORDS) as SoundChoice['call'][]).map((value) => ({
          value,
          label: CALL_WORDS[value],
        }))}
        value={choice.call}
        onChange={({ currentTarget: { value } }) => choose({ call: value as SoundChoice['call'] })}
      />
      <SegmentedControl
        aria-label="Counted in"
        data={[
          { value: '4', label: '5 6 7 8' },
          { value: '8', label: 'a whole eight' },
        ]}
        value={String(choice.countIn)}
        onChange={(value) => choose({ countIn: value === '8' ? 8 : 4 })}
      />
      <fieldset className={classes.extras}>
        <legend>Where nothing else is said</legend>
        {(['praise', 'watch', 'breathe'] as const).map((extra) => (
          <Switch
            key={extra}
            label={EXTRA_WORDS[extra]}
            checked={choice.extras[extra]}
            onChange={({ currentTarget: { checked } }) =>
              choose({ extras: { ...choice.extras, [extra]: checked } })
            }
          />
        ))}
        {choice.extras.praise && (
          <TextInput
            size="xs"
            label="Words of praise, with commas; say them yourself below"
            defaultValue={choice.praise.join(', ')}
            onBlur={({ currentTarget: { value } }) => choose({ praise: wordsIn(value) })}
          />
        )}
      </fieldset>
      <div className={classes.mix}>
        {LOUD.map((channel) => (
          <label key={channel} htmlFor={undefined}>
            <span>{LOUD_WORDS[channel]}</span>
            <Slider
              thumbLabel={`Loudness of ${LOUD_WORDS[channel].toLowerCase()}`}
              min={0}
              max={100}
              step={5}
              label={null}
              value={Math.round(choice.mix[channel] * 100)}
              onChange={(value) => choose({ mix: { ...choice.mix, [channel]: value / 100 } })}
            />
            <b className="counts">{Math.round(choice.mix[channel] * 100)}</b>
          </label>
        ))}
      </div>
      {canSpeak && (
        <Switch
          label="This browser’s own voice says the cues too (an extra: it can’t be on time)"
          checked={choice.browserVoice}
          onChange={({ currentTarget: { checked } }) => choose({ browserVoice: checked })}
        />
      )}
      <OwnWords spoken={planning.spoken} own={own} drill={drill} materials={materials} />
      {drill && (
        <SaveSound drill={drill} materials={materials} choice={choice} own={own} title={title} />
      )}
      <section className={classes.words} aria-label="Keys of the floor">
        <h2 className="display">Keys</h2>
        <KeyLines lines={keys} />
      </section>
    </div>
  )
}
