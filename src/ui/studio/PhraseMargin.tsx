import { Menu } from '@mantine/core'
import { memo } from 'react'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { isLead } from '../../core/combination/dancing'
import { ownOf, writtenOut } from '../../core/combination/like'
import { loopIndex } from '../../core/combination/loop'
import type { Pass } from '../../core/combination/passes'
import { voiceOf } from '../../core/combination/voice'
import type { Edit } from '../../core/edits/edit'
import * as phrases from '../../core/edits/phrases'
import { TICKS_PER_COUNT } from '../../core/time/time'
import classes from '../braid/braid.module.css'
import type { Line } from '../braid/lines'
import { focusBraidAfter } from '../parts/focusBraid'
import { PartBadge } from '../parts/PartBadge'
import { change, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import own from './studio.module.css'

const RETIMED = [
  { label: 'double time', factor: 0.5, item: 'Double time, in half the counts' },
  { label: 'half time', factor: 2, item: 'Half time, in twice the counts' },
] as const

/** `like A but for 2`: what a phrase goes on as, and how many places it has of its own. */
function likeWords(combination: Combination, id: string): string | undefined {
  const phrase = combination.phrases.find((one) => one.id === id)
  const of = combination.phrases.find((one) => one.id === phrase?.like?.phrase)
  if (!phrase || !of) return undefined
  const { places = 0 } = ownOf(phrase, combination) ?? {}
  const turned = phrase.like?.mirrored ? '~' : ''
  return `like ${of.name}${turned}${places > 0 ? ` but for ${places}` : ''}`
}

interface MarginProps {
  readonly session: Session
  readonly line: Line
  readonly newId: () => string
  readonly onRename: (pass: Pass) => void
  readonly onOptions: (pass: Pass) => void
}

/** The name of a phrase in the margin of its line, or of the part whose own line it is. */
export const PhraseMargin = memo(function PhraseMargin(props: MarginProps) {
  const { session, line } = props
  const name = useStore(session, (state) => documentOf(state).parts?.[line.part]?.name)
  const follows = useStore(session, (state) => followsWords(documentOf(state), line))
  return line.whom !== undefined && name !== undefined ? (
    <span className={own.ofPart}>
      <PartBadge index={line.part} name={name} />
      {follows && <i className={own.follows}>{follows}</i>}
    </span>
  ) : (
    <PhraseMenu {...props} />
  )
})

/** `after Amber, +2`: whom a part follows in a line of her own. */
function followsWords({ parts = [] }: Combination, { phrase, whom }: Line): string | undefined {
  const voice = whom === undefined ? undefined : voiceOf(phrase, whom)
  const of = parts.find(({ id }) => id === voice?.of)
  if (!voice || !of) return undefined
  const by = voice.by > 0 ? `, +${voice.by / TICKS_PER_COUNT}` : ''
  return `${voice.mirrored ? 'image of' : 'after'} ${of.name}${by}`
}

/** The name of a phrase; it opens what can be done with the phrase. */
const PhraseMenu = memo(function PhraseMenu(props: MarginProps) {
  const { session, line, newId, onRename, onOptions } = props
  const { pass, dancing } = line
  const { side } = dancing
  const isOther = useStore(session, (state) => !isLead(documentOf(state), dancing))
  const danced = useStore(session, (state) => documentOf(state).order.length)
  const loop = useStore(session, (state) => loopIndex(documentOf(state)))
  const { index, phrase, time, times, mirrored } = pass
  const tried = useStore(session, ({ trying }) =>
    trying?.phrase === phrase.id ? trying.option : undefined,
  )
  const options = [...(pass.options ?? []), ...(tried === undefined ? [] : [tried])]
  const hasParts = useStore(session, (state) => documentOf(state).parts !== undefined)
  const like = useStore(session, (state) => likeWords(documentOf(state), phrase.id))
  const said = phrase.title || (times > 1 ? `${time} of ${times}` : '')
  const act = (label: string, make: Edit) => () => change(session, `${label} ${phrase.name}`, make)
  return (
    <Menu
      returnFocus={false}
      onExitTransitionEnd={focusBraidAfter}
      position="right-start"
      withinPortal
    >
      <Menu.Target>
        <button
          type="button"
          className={own.phraseName}
          aria-label={`Phrase ${phrase.name}${times > 1 ? `, time ${time} of ${times}` : ''}, ${sideWord[side]} side: change it`}
        >
          <span className={`display ${classes.name}`}>
            {phrase.name}
            {mirrored && '~'}
          </span>
          <span className={classes.subtitle}>
            {[said, like, options.length > 0 && `[${options.join(' + ')}]`, index < loop && 'once']
              .filter(Boolean)
              .join(' · ')}
            {isOther && <em>{sideWord[side]}</em>}
          </span>
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => onRename(pass)}>
          {hasParts ? 'Name, counts, who follows whom…' : 'Name and counts…'}
        </Menu.Item>
        <Menu.Item onClick={() => onOptions(pass)}>Options…</Menu.Item>
        <Menu.Item onClick={act('repeat', phrases.repeatPass(index))}>Dance it again</Menu.Item>
        <Menu.Item onClick={act('turn round', phrases.turnPass(index))}>
          {mirrored ? 'Dance it as written' : 'Dance it from the other side'}
        </Menu.Item>
        <Menu.Item onClick={act('add a phrase behind', phrases.addPhrase(newId(), index))}>
          New phrase behind it
        </Menu.Item>
        <Menu.Item onClick={act('write one like', phrases.addLike(newId(), index))}>
          New phrase like it, behind it
        </Menu.Item>
        {like && (
          <Menu.Item onClick={act('let stand by itself', writtenOut(phrase.id))}>
            Let it stand by itself
          </Menu.Item>
        )}
        {RETIMED.map(({ label, factor, item }) => (
          <Menu.Item
            key={label}
            onClick={act(label, phrases.retime(phrase.id, factor, line.simulation.vocabulary))}
          >
            {item}
          </Menu.Item>
        ))}
        <Menu.Item
          onClick={act('put a count into', phrases.insertCounts(phrase.id, phrase.counts + 1, 1))}
        >
          One count more at its end
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item disabled={index === 0} onClick={act('move', phrases.movePass(index, index - 1))}>
          Earlier
        </Menu.Item>
        <Menu.Item
          disabled={index === danced - 1}
          onClick={act('move', phrases.movePass(index, index + 1))}
        >
          Later
        </Menu.Item>
        <Menu.Item disabled={index === 0} onClick={act('loop from', phrases.loopFrom(index))}>
          {loop === index && loop > 0 ? 'All of it is danced again' : 'The loop begins here'}
        </Menu.Item>
        <Menu.Item disabled={danced === 1} onClick={act('take out', phrases.removePass(index))}>
          Remove this phrase
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
})
