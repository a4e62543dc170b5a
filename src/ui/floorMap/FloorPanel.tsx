import { Button, NativeSelect, SegmentedControl, Slider, Switch } from '@mantine/core'
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import { facingWord } from '../../core/body/facing'
import { sideWord } from '../../core/body/side'
import { placeIn } from '../../core/combination/names'
import { type Pass, passAt } from '../../core/combination/passes'
import { wayWords } from '../../core/findings/findingText'
import { formationOf } from '../../core/findings/pairs/floor'
import { lengthWords, type Units } from '../../core/house/lengths'
import type { Moment } from '../../core/performance/performance'
import { comeBack } from '../../core/repair/comeBack'
import { roundEnds } from '../../core/simulate/simulate'
import { floorNeeds } from '../../core/space/floorNeeds'
import { endsAway, sizeOf, travelByPass } from '../../core/space/space'
import { endOf, numberAt, TICKS_PER_COUNT, tick } from '../../core/time/time'
import { PreviewButton } from '../findings/PreviewButton'
import { useFrames } from '../play/useFrames'
import { stageChoice } from '../stage/stageChoice'
import { checkedOf, checkedPart, pieceNow } from '../stores/checked'
import { scrubbed } from '../stores/scrub'
import { useServices } from '../stores/services'
import { type Session, select, showPreview, withDance } from '../stores/session'
import { danceOf, documentOf, drawnState } from '../stores/state'
import { type ClassView, FloorMap } from './FloorMap'
import classes from './floorMap.module.css'
import { TurnTable, TurnTools } from './Turns'
import { onMap } from './together'

const ROUNDS = { one: 1, both: 2, four: 4 } as const
type Rounds = keyof typeof ROUNDS

/** What of a dance is read on the map. */
type Read = 'phrase' | 'near' | 'all'
/** Counts on either side of the cursor that are near it. */
const NEAR = 2 * TICKS_PER_COUNT

/** The way over the floor, the room and the class in it, and the turns. */
export function FloorPanel({
  session,
  isAlone,
}: {
  readonly session: Session
  /** It has the braid's place. */
  readonly isAlone: boolean
}) {
  const { deck } = useServices()
  const now = useDeferredValue(useStore(session, (s) => s))
  const state = useMemo(() => drawnState(now), [now])
  const document = danceOf(state)
  const whole = documentOf(state)
  const checked = checkedPart(whole, state.selection.dancing.part)
  const { lead, joins, house } = checked
  const [view, setView] = useState<ClassView>('dancer')
  const [rounds, setRounds] = useState<Rounds>('both')
  const [showsClass, setShowsClass] = useState(false)
  const [read, setRead] = useState<Read>('phrase')
  const [playing, setPlaying] = useState<number>()
  useEffect(() => () => showPreview(session, undefined), [session])
  // Rendered anew only with another count or step, not with every frame.
  const follow = useCallback(
    (moment: Moment | undefined) => {
      const last = moment && lead.danced.findLast(({ at: when }) => when <= moment.tick)
      const count = Math.floor((moment?.tick ?? 0) / TICKS_PER_COUNT) * TICKS_PER_COUNT
      setPlaying(moment && Math.max(0, count, last?.at ?? 0))
    },
    [lead],
  )
  useFrames(deck, follow)
  const { selection } = state
  const pass = lead.passes[selection.pass]
  const dragged = useStore(scrubbed, (s) => s?.tick)
  const at = dragged ?? playing ?? (pass?.at ?? 0) + selection.at
  const danced = passAt(lead.passes, at)
  const isStrong = (when: number) =>
    read === 'all' ||
    (read === 'near'
      ? Math.abs(when - at) <= NEAR
      : passAt(lead.passes, when)?.index === danced?.index)
  const numberOf = (when: number) => {
    const own = passAt(lead.passes, when)
    const count = `${own ? numberAt(when - own.at, own.phrase) : 1}`
    return read === 'all' && lead.passes.length > 1 ? placeIn(own?.phrase.name ?? '', count) : count
  }
  const needs = useMemo(
    () => floorNeeds(checked, ROUNDS[rounds], joins.switches),
    [checked, rounds, joins],
  )
  const { shown, round, arms: reach, fit, steps } = needs
  const together = whole.parts
    ? onMap(
        whole,
        pieceNow(whole),
        selection.dancing.part,
        {
          rounds: ROUNDS[rounds],
          switches: joins.switches,
          at,
          read:
            read === 'all' || !danced
              ? { from: 0, to: lead.length }
              : { from: danced.at, to: endOf(danced) },
        },
        house,
      )
    : undefined
  const seen = together ? sizeOf(together.area) : shown.size
  const smaller = steps === undefined ? '' : `; all at ${Math.round(steps * 100)} % steps`
  const formation = whole.parts && formationOf(pieceNow(whole).lead)
  const name = whole.parts?.[together?.own.index ?? 0]?.name
  const fitWords = formation
    ? groupWords(formation)
    : fit >= house.dancers
      ? `all ${house.dancers} dancers fit, up to ${fit}`
      : `${fit} of ${house.dancers} dancers fit${smaller}`
  const labelOf = ({ at: when }: { at: number }) => {
    const own = passAt(lead.passes, when)
    return own ? placeIn(own.phrase.name, `${numberAt(when - own.at, own.phrase)}`) : ''
  }
  const travel = travelByPass(lead)
  const long = (metres: number) => lengthWords(metres, house.units)
  const { from, to } = roundEnds(lead)
  const turned = to.facing - from.facing
  return (
    <section className={classes.panel} aria-label="Floor" data-alone={isAlone}>
      <div className={classes.row}>
        <SegmentedControl
          size="xs"
          aria-label="Whose view"
          value={view}
          onChange={(value) => setView(value as ClassView)}
          data={[
            { value: 'dancer', label: 'Dancer’s' },
            { value: 'audience', label: 'Audience’s' },
          ]}
        />
        <NativeSelect
          size="xs"
          aria-label="Rounds"
          value={rounds}
          onChange={({ currentTarget }) => setRounds(currentTarget.value as Rounds)}
          data={[
            { value: 'one', label: `${sideWord[document.lead]} side` },
            { value: 'both', label: joins.switches ? 'both sides' : 'two rounds' },
            { value: 'four', label: 'four rounds' },
          ]}
        />
        <NativeSelect
          size="xs"
          aria-label="What is read"
          value={read}
          onChange={({ currentTarget }) => setRead(currentTarget.value as Read)}
          data={[
            { value: 'phrase', label: `phrase ${danced?.phrase.name ?? ''}` },
            { value: 'near', label: 'counts near' },
            { value: 'all', label: 'all counts' },
          ]}
        />
        <Switch
          size="xs"
          label="Class"
          checked={showsClass}
          onChange={({ currentTarget }) => setShowsClass(currentTarget.checked)}
        />
        <Switch
          size="xs"
          className={classes.alone}
          label="Instead of the braid"
          checked={isAlone}
          onChange={({ currentTarget }) =>
            stageChoice.setState({ isFloorAlone: currentTarget.checked })
          }
        />
      </div>
      <div className={classes.seen}>
        <FloorMap
          rounds={together?.rounds ?? shown.rounds}
          area={together?.area ?? shown.area}
          {...(together && {
            others: together.others,
            own: together.own,
            held: together.held,
            near: together.near,
          })}
          house={house}
          view={view}
          showsClass={showsClass}
          at={at}
          lead={document.lead}
          reach={Math.max(reach.sideways, reach.deep)}
          labelOf={labelOf}
          numberOf={numberOf}
          isStrong={isStrong}
        />
        {isAlone && <CountRuler session={session} passes={lead.passes} at={dragged ?? playing} />}
      </div>
      <dl className={classes.facts}>
        {formation && (
          <>
            <dt>Together</dt>
            <dd className="counts">
              {long(formation.width)} × {long(formation.depth)} in one round
            </dd>
          </>
        )}
        <dt>{name ? `${name}’s round takes` : 'One round takes'}</dt>
        <dd className="counts">
          {long(round.width)} × {long(round.depth)}, ends{' '}
          {wayWords(endsAway(lead, false), house.units)}
        </dd>
        <dt>{rounds === 'four' ? 'Four rounds' : 'As shown'}</dt>
        <dd className="counts">
          {long(seen.width)} × {long(seen.depth)}
        </dd>
        <dt>Arms reach</dt>
        <dd className="counts">
          {long(reach.sideways)} to the side, {long(reach.deep)} front and back
        </dd>
        <dt>Your room</dt>
        <dd data-fit={formation?.fit ?? fit}>
          {long(house.room.width)} × {long(house.room.depth)}: {fitWords}.{' '}
          <Link to="/house">Change it</Link>
        </dd>
        {lead.passes.map((one_, i) => (
          <PhraseTravel
            key={one_.index}
            name={one_.phrase.name}
            way={travel[i]}
            units={house.units}
          />
        ))}
      </dl>
      <ComeBackOffers session={session} />
      <h3 className={`display ${classes.head}`}>Turns</h3>
      <TurnTable session={session} />
      <p className={classes.quiet}>
        {turned === 0
          ? 'All turns together come to nothing: every round faces front again.'
          : `All turns together: ${turned}°, so you end facing ${facingWord(to.facing)}.`}
      </p>
      <TurnTools session={session} at={at} />
    </section>
  )
}

/** The counts of a round in a row, for going along them where the braid is not seen. */
function CountRuler({
  session,
  passes,
  at,
}: {
  readonly session: Session
  readonly passes: readonly Pass[]
  /** Where it plays or is dragged; else where the cursor stands. */
  readonly at: number | undefined
}) {
  // As fast as keys: the map may come behind.
  const { selection } = useStore(session, (s) => s)
  const now = at ?? (passes[selection.pass]?.at ?? 0) + selection.at
  const goTo = (when: number) => {
    const to = passAt(passes, when)
    if (to)
      select(session, { ...selection, pass: to.index, at: tick(when - to.at), event: undefined })
  }
  const last = passes.at(-1)
  const counts = last ? endOf(last) / TICKS_PER_COUNT : 1
  const place = (count: number) => {
    const pass = passAt(passes, count * TICKS_PER_COUNT)
    return pass ? placeIn(pass.phrase.name, `${count - pass.at / TICKS_PER_COUNT + 1}`) : ''
  }
  return (
    <Slider
      className={classes.ruler}
      thumbLabel="Count on the floor"
      min={0}
      max={counts - 1}
      step={1}
      value={Math.floor(now / TICKS_PER_COUNT)}
      onChange={(count) => goTo(count * TICKS_PER_COUNT)}
      label={place}
      thumbValueText={place}
      marks={passes.map((pass) => ({ value: pass.at / TICKS_PER_COUNT, label: pass.phrase.name }))}
    />
  )
}

/** How many groups of a piece fit into the room. */
const groupWords = ({ groups, fit, group }: ReturnType<typeof formationOf>): string => {
  const such = group === 2 ? 'couples' : `groups of ${group}`
  return fit >= groups ? `${groups} ${such} fit, up to ${fit}` : `${fit} of ${groups} ${such} fit`
}

function PhraseTravel({
  name,
  way,
  units,
}: {
  name: string
  units: Units
  way: { right: number; forward: number } | undefined
}) {
  if (!way || Math.hypot(way.right, way.forward) < 0.05) return null
  return (
    <>
      <dt>{name} goes</dt>
      <dd className="counts">{wayWords(way, units)}</dd>
    </>
  )
}

/** Which steps to shrink or turn round so that the round ends where it began. */
function ComeBackOffers({ session }: { session: Session }) {
  const document = useStore(session, danceOf)
  const [asked, setAsked] = useState<typeof document>()
  const { lead, house } = checkedOf(document)
  const offers = useMemo(
    () => (asked === document ? comeBack(document, lead.vocabulary, house) : []),
    [asked, document, lead, house],
  )
  if (asked !== document)
    return (
      <Button size="compact-xs" variant="default" onClick={() => setAsked(document)}>
        Make it end where it began
      </Button>
    )
  return (
    <div className={classes.row}>
      {offers.length === 0 && <p className={classes.quiet}>It does already, or no step helps.</p>}
      {offers.map(({ label, changed, away }) => (
        <PreviewButton
          key={label}
          session={session}
          changed={withDance(session.getState(), changed)}
          does={`come back: ${label}`}
        >
          {label} ({lengthWords(away, house.units)} away then)
        </PreviewButton>
      ))}
    </div>
  )
}
