import { Button, Checkbox, Chip, Modal, NativeSelect, Group as Row, TextInput } from '@mantine/core'
import { useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import { type OwnWords, ownWordsIn } from '../../core/calling/ownWords'
import type { Combination } from '../../core/combination/combination'
import { pageDataOf } from '../../core/practice/makePage'
import { pageFileName, practicePage } from '../../core/practice/practicePage'
import { sentPageOf } from '../../core/practice/sentPage'
import { withVoice } from '../../core/practice/voice'
import { wholeInSongs } from '../../core/routine/asWhole'
import { clockText } from '../../core/time/clock'
import { download } from '../parts/files'
import { counted } from '../parts/locale'
import { inWords, Problem } from '../parts/Problem'
import { today } from '../planning/today'
import { useGroups, usePlanning } from '../planning/usePlanning'
import { useSongs } from '../songs/useSongs'
import { houseNow } from '../stores/house'
import { words } from '../stores/words'
import { pageParts, shippedVoice } from './pageParts'
import classes from './practice.module.css'
import { songForPage } from './songForPage'

/** What a page of a class of a series is of. */
export interface PageBegin {
  readonly phrases: readonly string[]
  readonly group: string | undefined
  readonly next: string | undefined
  readonly inSeries: { readonly n: number; readonly of: number }
}

/** What goes with a practice page, and the button that saves it as one file. */
export function PageForm({
  combination,
  begin,
  onClose,
}: {
  readonly combination: Combination
  /** What is chosen at first, where it is of a class of a series. */
  readonly begin?: PageBegin | undefined
  readonly onClose: () => void
}) {
  const { rules } = useStore(houseNow, (s) => s)
  const { vocabulary } = useStore(words, (s) => s)
  const planning = usePlanning()
  const groups = useGroups()
  const [by, setBy] = useState('')
  const [note, setNote] = useState('')
  const [next, setNext] = useState(begin?.next ?? '')
  const [group, setGroup] = useState(begin?.group ?? '')
  const [part, setPart] = useState(combination.parts?.[0]?.id ?? '')
  const [phrases, setPhrases] = useState<readonly string[]>(
    () => begin?.phrases ?? combination.phrases.map(({ id }) => id),
  )
  const [sides, setSides] = useState<'both' | 'lead'>('both')
  const [hasVoice, setVoice] = useState(true)
  const [isOwn, setOwn] = useState(true)
  const [saidWords, setSaidWords] = useState<OwnWords>(new Map())
  useEffect(() => {
    let isHere = true
    void planning?.spoken.list().then((list) => {
      if (isHere) setSaidWords(ownWordsIn(list))
    })
    return () => {
      isHere = false
    }
  }, [planning])
  const { ready: songs } = useSongs()
  const [song, setSong] = useState('')
  // Of several dancers each has a page of her own, and a song has all of them.
  const lain = useMemo(
    () => (songs && !combination.parts ? wholeInSongs(combination, songs.routines, songs.all) : []),
    [combination, songs],
  )
  const [error, setError] = useState<unknown>()
  const [saved, setSaved] = useState('')
  const wishes = useMemo(
    () => ({
      made: today(),
      part: part || undefined,
      phrases: phrases.length === combination.phrases.length ? [] : phrases,
      sides,
      ...(begin && { inSeries: begin.inSeries }),
    }),
    [combination, part, phrases, sides, begin],
  )
  // What is only written on it changes nothing of its parts, and is not waited for while it is typed.
  const made = useMemo(() => {
    try {
      return { parts: pageDataOf(combination, vocabulary, rules, wishes).chunks.length }
    } catch (problem) {
      return { problem }
    }
  }, [combination, vocabulary, rules, wishes])
  const save = async () => {
    if (!planning) return
    setError(undefined)
    try {
      const place = lain.find(({ id }) => id === song)
      const page = pageDataOf(combination, vocabulary, rules, {
        ...wishes,
        song: place && songs ? await songForPage(place, songs.store) : undefined,
        by: by.trim() || undefined,
        note: note.trim() || undefined,
        next: next || undefined,
      })
      const spoken = hasVoice
        ? withVoice(page, await shippedVoice(), isOwn ? saidWords : undefined)
        : page
      const file = practicePage(spoken, await pageParts())
      const sent = sentPageOf(spoken, group || undefined)
      // What came back of it stays, whomever it is sent to now.
      const known = await planning.sent.change(sent.id, ({ returns }) => ({ ...sent, returns }))
      if (!known) await planning.sent.put(sent)
      download(pageFileName(spoken), file, 'text/html')
      setSaved(
        `Saved, ${Math.round(file.length / 1000)} kB. It opens in any browser, without a network.`,
      )
    } catch (problem) {
      setError(problem)
    }
  }
  return (
    <Modal opened onClose={onClose} title="Practice page" centered>
      <div className={classes.form}>
        <p className={classes.quiet}>
          One file for those who learn it: each part to watch, walk, try, on both sides and from the
          top. Nothing is sent by itself; what they send back you open in the diary.
        </p>
        {combination.parts && (
          <NativeSelect
            label="Whose page"
            data={combination.parts.map(({ id, name }) => ({ value: id, label: name }))}
            value={part}
            onChange={({ currentTarget: { value } }) => setPart(value)}
          />
        )}
        {combination.phrases.length > 1 && (
          <fieldset className={classes.phrases}>
            <legend>Phrases to learn</legend>
            <Chip.Group multiple value={[...phrases]} onChange={setPhrases}>
              <Row gap={6}>
                {combination.phrases.map(({ id, name }) => (
                  <Chip key={id} value={id}>
                    {name}
                  </Chip>
                ))}
              </Row>
            </Chip.Group>
          </fieldset>
        )}
        <NativeSelect
          label="Sides"
          data={[
            { value: 'both', label: 'both, where it can be danced on both' },
            { value: 'lead', label: 'the lead side alone' },
          ]}
          value={sides}
          onChange={({ currentTarget: { value } }) => setSides(value === 'lead' ? 'lead' : 'both')}
        />
        <Checkbox
          label="With the voice that calls"
          checked={hasVoice}
          onChange={({ currentTarget: { checked } }) => setVoice(checked)}
        />
        {hasVoice && saidWords.size > 0 && (
          <Checkbox
            label="In your own voice where you said the words"
            checked={isOwn}
            onChange={({ currentTarget: { checked } }) => setOwn(checked)}
          />
        )}
        {lain.length > 0 && (
          <NativeSelect
            label="With a song"
            description="Its sound does not go along: they open their own copy."
            data={[
              { value: '', label: 'the app’s rhythm alone' },
              ...lain.map(({ id, song: one, side, at }) => ({
                value: id,
                label: `${one.title}, ${sideWord[side]}, from ${clockText((one.counts.ms[at] ?? 0) / 1000)}`,
              })),
            ]}
            value={song}
            onChange={({ currentTarget: { value } }) => setSong(value)}
          />
        )}
        <NativeSelect
          label="For"
          data={[
            { value: '', label: 'nobody in particular' },
            ...groups.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={group}
          onChange={({ currentTarget: { value } }) => setGroup(value)}
        />
        <TextInput
          label="From"
          placeholder="Your name, or your studio’s"
          maxLength={80}
          value={by}
          onChange={({ currentTarget: { value } }) => setBy(value)}
        />
        <TextInput
          label="A line on its first page"
          maxLength={280}
          value={note}
          onChange={({ currentTarget: { value } }) => setNote(value)}
        />
        <TextInput
          label="Next class"
          type="date"
          value={next}
          onChange={({ currentTarget: { value } }) => setNext(value)}
        />
        {(error ?? made.problem) !== undefined && <Problem {...inWords(error ?? made.problem)} />}
        <div className={classes.end}>
          <Button
            disabled={!made.parts || !planning || phrases.length === 0}
            onClick={() => void save()}
          >
            Save the page
          </Button>
          <p role="status">{saved || (made.parts ? counted(made.parts, 'part') : '')}</p>
        </div>
      </div>
    </Modal>
  )
}
