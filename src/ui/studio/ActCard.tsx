import { ActionIcon, NativeSelect, TextInput } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import { capital } from '../../core/capital'
import { ActId, Drape, FEATURES_OF, Feature, type PropAct } from '../../core/combination/carried'
import { type ActChange, changeAct, removeAct } from '../../core/edits/props'
import { actRow } from '../../core/props/acts'
import { DRAPE_WORDS, FEATURE_WORDS } from '../../core/props/held'
import { actsHere } from '../../core/props/lane'
import { labelIn, labelOfSpan } from '../../core/time/time'
import { simulationFrom } from '../stores/checked'
import { changeAll, type Session } from '../stores/session'
import { actPicked, documentOf } from '../stores/state'
import { SpanButtons } from './SpanButtons'
import classes from './studio.module.css'

interface ActCardProps {
  readonly session: Session
  readonly onClose: () => void
}

/** What a hand makes ready, as it is written; others are typed in the sheet. */
const READY = ['hair-in', 'elbow-in'] as const

/** Everything about something that is done with what is carried, to be changed by hand. */
export function ActCard({ session, onClose }: ActCardProps) {
  const picked = useStore(session, actPicked)
  const document = useStore(session, documentOf)
  const dancing = useStore(session, (s) => s.selection.dancing)
  const { carried = [], parts = [], phrases } = document
  const phrase = phrases.find(({ props = [] }) => props.some(({ id }) => id === picked?.id))
  const prop = carried.find(({ id }) => id === picked?.prop)
  if (!picked || !phrase || !prop) return null
  const set = (change: ActChange, mark?: string) =>
    changeAll(session, `change what is done with ${prop.name}`, changeAct(picked.id, change), mark)
  const simulation = simulationFrom(document, dancing)
  const pass = simulation.passes.find((one) => one.phrase.id === phrase.id)
  const { can, others } = actsHere(simulation, prop, (pass?.at ?? 0) + picked.at - 0.5)
  const row = actRow(picked.act)
  const wants = (act: ActId): ActChange => ({
    act,
    to: undefined,
    ready: act === 'ready' ? READY[0] : undefined,
  })
  return (
    <section className={classes.card} aria-label="What is done with it">
      <header className={classes.cardHead}>
        <h2 className="display">{capital(row.name)}</h2>
        <ActionIcon variant="subtle" color="gray" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </header>
      <p className={classes.cardWhen}>
        {prop.name}, counts {labelOfSpan(picked, labelIn(phrase))}. {row.feel}
      </p>
      <div className={classes.cardRow}>
        {carried.length > 1 && (
          <NativeSelect
            size="xs"
            aria-label="With what"
            data={carried.map(({ id, name }) => ({ value: id, label: name }))}
            value={picked.prop}
            onChange={({ currentTarget }) => set({ prop: currentTarget.value, to: undefined })}
          />
        )}
        <NativeSelect
          size="xs"
          aria-label="What is done"
          data={[
            { group: 'As it is held here', items: can.map(named) },
            { group: 'Needs something before', items: others.map(named) },
          ]}
          value={picked.act}
          onChange={({ currentTarget }) => {
            const act = ActId.safeParse(currentTarget.value).data
            if (act) set(wants(act))
          }}
        />
        <HandField picked={picked} set={set} />
        {parts.length > 0 && !prop.part && (
          <NativeSelect
            size="xs"
            aria-label="Who does it"
            data={[
              { value: '', label: 'all of them' },
              ...parts.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            value={picked.who?.[0] ?? ''}
            onChange={({ currentTarget: { value } }) => set({ who: value ? [value] : undefined })}
          />
        )}
        {picked.act === 'ready' && (
          <NativeSelect
            size="xs"
            aria-label="What is got ready"
            data={[...new Set([...READY, picked.ready ?? ''])].filter(Boolean)}
            value={picked.ready ?? ''}
            onChange={({ currentTarget }) => set({ ready: currentTarget.value })}
          />
        )}
        {LEADS_SOMEWHERE.has(picked.act) && (
          <NativeSelect
            size="xs"
            aria-label="Where it leads"
            data={[
              { value: '', label: 'as usual' },
              ...FEATURES_OF[prop.kind].map((value) => ({
                value,
                label: `its ${FEATURE_WORDS[value]}`,
              })),
              ...Drape.options
                .filter((value) => value !== 'none')
                .map((value) => ({ value, label: DRAPE_WORDS[value] })),
            ]}
            value={picked.to ?? ''}
            onChange={({ currentTarget: { value } }) =>
              set({ to: Feature.safeParse(value).data ?? Drape.safeParse(value).data })
            }
          />
        )}
      </div>
      <div className={classes.cardRow}>
        <SpanButtons
          span={picked}
          set={set}
          onRemove={() => {
            changeAll(session, `take out ${row.name}`, removeAct(picked.id))
            onClose()
          }}
        />
      </div>
      <div className={classes.cardRow}>
        <TextInput
          size="xs"
          label="Called"
          placeholder={row.name}
          value={picked.cue ?? ''}
          onChange={({ currentTarget: { value } }) => set({ cue: value }, `cue ${picked.id}`)}
        />
        <TextInput
          size="xs"
          label="Note"
          value={picked.note ?? ''}
          onChange={({ currentTarget: { value } }) => set({ note: value }, `note ${picked.id}`)}
        />
      </div>
      <p className={classes.cardNote}>Watch for this: {row.watch}</p>
    </section>
  )
}

/** What may lead to an edge, or to where the cloth is then. */
const LEADS_SOMEWHERE: ReadonlySet<ActId> = new Set<ActId>([
  'take',
  'catch',
  'slide',
  'over',
  'under',
  'drape',
  'carry',
  'unroll',
])

const named = (act: ActId) => ({ value: act, label: actRow(act).name })

/** The hand it is done with, where it is one. */
function HandField({
  picked,
  set,
}: {
  readonly picked: PropAct
  readonly set: (change: ActChange) => void
}) {
  const { hands } = actRow(picked.act)
  if (hands === 'both' || hands === 'any') return null
  return (
    <NativeSelect
      size="xs"
      aria-label="Which hand"
      data={[
        { value: '', label: 'the hand that can' },
        ...(['R', 'L'] as const).map((value) => ({ value, label: `${sideWord[value]} hand` })),
      ]}
      value={picked.hand ?? ''}
      onChange={({ currentTarget: { value } }) =>
        set({ hand: value === 'R' || value === 'L' ? value : undefined })
      }
    />
  )
}
