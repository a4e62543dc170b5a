import { ActionIcon, Button, Checkbox, Modal, Select, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useState } from 'react'
import { useStore } from 'zustand'
import { ANY_OPTIONS, type Option, OptionKind } from '../../core/combination/combination'
import { ANY_OPTION_WORDS } from '../../core/combination/options'
import type { Pass } from '../../core/combination/passes'
import { addOption, describeOption, pickOptions, removeOption } from '../../core/edits/options'
import { OPTION_KIND_WORDS, sayOptions } from '../../core/teaching/say'
import { checkedOf } from '../stores/checked'
import { change, type Session, tryOption } from '../stores/session'
import { writtenOf } from '../stores/state'
import classes from './studio.module.css'

const KINDS = OptionKind.options.map((value) => ({ value, label: OPTION_KIND_WORDS[value] }))

interface OptionsFormProps {
  readonly session: Session
  readonly pass: Pass
  readonly onClose: () => void
}

/** What of a phrase may be danced otherwise: its options, the one that is looked at, and those danced in this place. */
export function OptionsForm({ session, pass, onClose }: OptionsFormProps) {
  const written = useStore(session, writtenOf)
  const trying = useStore(session, (state) => state.trying)
  const phrase = written.phrases.find(({ id }) => id === pass.phrase.id)
  if (!phrase) return null
  const { id, name, options = [] } = phrase
  const picked = written.order[pass.index]?.options ?? []
  const shown = trying?.phrase === id ? trying.option : undefined
  const all = [
    ...options.map((option) => ({ value: option.name, words: option.words })),
    ...ANY_OPTIONS.map((value) => ({ value, words: ANY_OPTION_WORDS[value] })),
  ]
  const pick = (value: string, is: boolean) =>
    change(
      session,
      `dance ${name} otherwise`,
      pickOptions(pass.index, is ? [...picked, value] : picked.filter((one) => one !== value)),
    )
  return (
    <Modal opened onClose={onClose} title={`Options of phrase ${name}`} centered size="lg">
      {options.map((option) => (
        <OptionRow
          key={option.name}
          session={session}
          phrase={id}
          option={option}
          isShown={option.name === shown}
          onShow={() => {
            tryOption(session, id, option.name === shown ? undefined : option.name)
            onClose()
          }}
        />
      ))}
      <NewOption
        session={session}
        phrase={id}
        onMade={(made) => {
          tryOption(session, id, made)
          onClose()
        }}
      />
      <fieldset className={classes.picks}>
        <legend>
          Danced in this place{pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''} with
        </legend>
        {all.map(({ value, words }) => (
          <Checkbox
            key={value}
            size="sm"
            label={words === value ? value : `${value}: ${words}`}
            checked={picked.includes(value)}
            onChange={({ currentTarget }) => pick(value, currentTarget.checked)}
          />
        ))}
      </fieldset>
    </Modal>
  )
}

interface OptionRowProps {
  readonly session: Session
  readonly phrase: string
  readonly option: Option
  readonly isShown: boolean
  readonly onShow: () => void
}

function OptionRow({ session, phrase, option, isShown, onShow }: OptionRowProps) {
  const { name, kind, words } = option
  const say = (said: Partial<Pick<Option, 'kind' | 'words'>>, mark?: string) =>
    change(session, `describe ${name}`, describeOption(phrase, name, said), mark)
  return (
    <div className={classes.optionRow} role="group" aria-label={`Option ${name}`}>
      <b>{name}</b>
      <Select
        size="xs"
        aria-label={`What kind of option ${name} is`}
        data={KINDS}
        allowDeselect={false}
        value={kind}
        onChange={(value) => say({ kind: OptionKind.parse(value) })}
      />
      <TextInput
        size="xs"
        aria-label={`What the page says of ${name}`}
        defaultValue={words}
        onBlur={({ currentTarget }) =>
          currentTarget.value.trim() !== words && say({ words: currentTarget.value })
        }
      />
      <Button size="compact-sm" variant={isShown ? 'filled' : 'default'} onClick={onShow}>
        {isShown ? 'As it is written' : 'Show and change it'}
      </Button>
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={`Remove option ${name}`}
        onClick={() => {
          if (isShown) tryOption(session, phrase, undefined)
          change(session, `take option ${name} out`, removeOption(phrase, name))
        }}
      >
        <IconTrash size={16} />
      </ActionIcon>
    </div>
  )
}

/** A new option: its name, what it is for, and what the page says. */
function NewOption({
  session,
  phrase,
  onMade,
}: {
  readonly session: Session
  readonly phrase: string
  readonly onMade: (name: string) => void
}) {
  const [name, setName] = useState('')
  const [kind, setKind] = useState<Option['kind']>('easier')
  const [words, setWords] = useState('')
  const make = () => {
    const called = name.trim()
    change(session, `write option ${called}`, addOption(phrase, { name: called, kind, words }))
    const made = writtenOf(session.getState()).phrases.find(({ id }) => id === phrase)
    if (made?.options?.some((option) => option.name === called)) onMade(called)
  }
  return (
    <form
      className={classes.optionRow}
      aria-label="New option"
      onSubmit={(event) => {
        event.preventDefault()
        make()
      }}
    >
      <TextInput
        size="xs"
        aria-label="Name of the new option"
        placeholder="low"
        value={name}
        onChange={({ currentTarget }) => setName(currentTarget.value)}
      />
      <Select
        size="xs"
        aria-label="What kind of option it is"
        data={KINDS}
        allowDeselect={false}
        value={kind}
        onChange={(value) => setKind(OptionKind.parse(value))}
      />
      <TextInput
        size="xs"
        aria-label="What the page says of it"
        placeholder="back half only"
        value={words}
        onChange={({ currentTarget }) => setWords(currentTarget.value)}
      />
      <Button size="compact-sm" type="submit" disabled={name.trim() === ''}>
        Add option
      </Button>
    </form>
  )
}

/** What may be danced otherwise, in words: only on paper, under the braid. */
export function OptionsOnPaper({ session }: { readonly session: Session }) {
  const written = useStore(session, writtenOf)
  const { lead } = checkedOf(written)
  const firsts = lead.passes.filter(({ time, phrase }) => time === 1 && phrase.options)
  if (firsts.length === 0) return null
  return (
    <section className={classes.onPaper} aria-hidden>
      {firsts.flatMap((pass) =>
        sayOptions(pass, lead.vocabulary).map(({ name, title, lines }) => (
          <p key={`${pass.index} ${name}`}>
            <b>
              {pass.phrase.name} · {title}.
            </b>{' '}
            {lines.map(({ when, text }) => `${when}: ${text}`).join('; ')}
          </p>
        )),
      )}
    </section>
  )
}

/** Says which option is shown and changed, and leads back. */
export function TryingStrip({ session }: { readonly session: Session }) {
  const trying = useStore(session, (state) => state.trying)
  const written = useStore(session, writtenOf)
  const phrase = written.phrases.find(({ id }) => id === trying?.phrase)
  const option = phrase?.options?.find(({ name }) => name === trying?.option)
  if (!phrase || !option) return null
  return (
    <div className={classes.trying} role="status">
      <span>
        Phrase {phrase.name} with <b>{option.name}</b> ({OPTION_KIND_WORDS[option.kind]}):{' '}
        {option.words}. What you change in it belongs to this option.
      </span>
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => tryOption(session, phrase.id, undefined)}
      >
        As it is written
      </Button>
    </div>
  )
}
