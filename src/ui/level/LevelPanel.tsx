import { Button, SegmentedControl } from '@mantine/core'
import { scaleLinear } from 'd3-scale'
import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { DancerLevel } from '../../core/combination/combination'
import { leadOf } from '../../core/combination/dancing'
import { placeIn } from '../../core/combination/names'
import { sharing } from '../../core/edits/share'
import { findingText, spotText } from '../../core/findings/findingText'
import { tempoRoom } from '../../core/findings/tempoLimits'
import type { LevelForm } from '../../core/forms/levels'
import { type CountLoad, hardestLoad } from '../../core/load/load'
import { loadWords } from '../../core/load/loadWords'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { COUNT, TICKS_PER_COUNT, tick } from '../../core/time/time'
import { goTo } from '../findings/goTo'
import { PreviewButton } from '../findings/PreviewButton'
import { checkedOf } from '../stores/checked'
import { useServices } from '../stores/services'
import { type Session, select, showPreview, withDance } from '../stores/session'
import { danceOf, documentOf, type SessionState } from '../stores/state'
import classes from './level.module.css'

const LEVEL_SHORT: Readonly<Record<DancerLevel, string>> = {
  new: 'New',
  improver: 'Improver',
  intermediate: 'Inter.',
  advanced: 'Advanced',
}

/** How hard and how fast: the load of each count, what stands in the way of a faster tempo, and the version for each level. */
export function LevelPanel({ session }: { session: Session }) {
  const document = useDeferredValue(useStore(session, danceOf))
  const checked = checkedOf(document)
  const { loads, level, house } = checked
  const [wanted, setWanted] = useState<DancerLevel>(level)
  const limit = house.limits[`load.limit.${wanted}`]
  return (
    <section className={classes.panel} aria-label="Level and tempo">
      <h2 className={`display ${classes.head}`}>How hard it is</h2>
      <LoadChart
        loads={loads}
        limit={limit}
        names={checked.lead.passes.map(({ phrase }) => phrase.name)}
        onPick={({ pass, count }) =>
          select(session, {
            dancing: leadOf(document, session.getState().selection.dancing.part),
            pass,
            layer: session.getState().selection.layer,
            at: tick((count - 1) * TICKS_PER_COUNT),
            length: COUNT,
          })
        }
      />
      <p className={classes.quiet}>
        A guide, no measurement. The hardest count has {hardestLoad(loads).toFixed(1)}; about{' '}
        {limit} is enough here.
      </p>
      <h2 className={`display ${classes.head}`}>For whom</h2>
      <SegmentedControl
        fullWidth
        size="xs"
        aria-label="Version for"
        value={wanted}
        onChange={(value) => setWanted(DancerLevel.parse(value))}
        data={DancerLevel.options.map((value) => ({ value, label: LEVEL_SHORT[value] }))}
      />
      <LevelVersion session={session} level={wanted} />
      <h2 className={`display ${classes.head}`}>How fast it goes</h2>
      <TempoLimits session={session} />
    </section>
  )
}

const CHART = { width: 310, height: 92, foot: 14 }

interface LoadChartProps {
  readonly loads: readonly CountLoad[]
  readonly limit: number
  readonly names: readonly string[]
  readonly onPick: (load: CountLoad) => void
}

function LoadChart({ loads, limit, names, onPick }: LoadChartProps) {
  const most = Math.max(limit * 1.15, hardestLoad(loads))
  const x = scaleLinear([0, loads.length], [0, CHART.width])
  const y = scaleLinear([0, most], [CHART.height - CHART.foot, 4])
  return (
    <div className={classes.chart}>
      <svg viewBox={`0 0 ${CHART.width} ${CHART.height}`} aria-hidden>
        {loads.map(({ at, total, pass, count }, i) => (
          <g key={at}>
            <rect
              className={classes.bar}
              data-over={total > limit}
              x={x(i) + 0.5}
              y={y(total)}
              width={Math.max(1, x(1) - 1)}
              height={y(0) - y(total)}
            />
            {count === 1 && (
              <text className={classes.name} x={x(i) + 1} y={CHART.height - 3}>
                {names[pass]}
              </text>
            )}
          </g>
        ))}
        <line className={classes.limit} x1={0} x2={CHART.width} y1={y(limit)} y2={y(limit)} />
      </svg>
      <div className={classes.picks}>
        {loads.map((load) => (
          <button
            key={load.at}
            type="button"
            title={loadWords(load, limit)}
            aria-label={`${placeIn(names[load.pass] ?? '', `${load.count}`)}, ${loadWords(load, limit)}`}
            onClick={() => onPick(load)}
          />
        ))}
      </div>
    </div>
  )
}

const isOfAll = (state: SessionState): boolean =>
  state.selection.whom === undefined && documentOf(state).parts !== undefined

/** The version for a level: its swaps, to be taken as one edit or kept beside this one. */
function LevelVersion({ session, level }: { session: Session; level: DancerLevel }) {
  const { judge, combinations, newId } = useServices()
  // Of several dancers all of them, or the one whose line the selection stands in.
  const document = useDeferredValue(
    useStore(session, (s) => (isOfAll(s) ? documentOf(s) : danceOf(s))),
  )
  const [form, setForm] = useState<LevelForm>()
  useEffect(() => {
    const stop = new AbortController()
    setForm(undefined)
    judge
      .ask('level', { combination: document, level }, stop.signal)
      .then((found) => setForm({ ...found, combination: sharing(document, found.combination) }))
      .catch(() => undefined)
    return () => {
      stop.abort()
      showPreview(session, undefined)
    }
  }, [judge, document, level, session])
  if (!form) return <p className={classes.quiet}>Looking through the forms…</p>
  const { swaps, load, left } = form
  const wholeOf = ({ combination }: LevelForm) =>
    isOfAll(session.getState()) ? combination : withDance(session.getState(), combination)
  const fits = load.after <= load.limit + 1e-9
  const keepBeside = async () => {
    const title = `${document.title}, ${level}`
    const whole = wholeOf(form)
    const variant = { ...whole, id: newId(), title, variantOf: document.id }
    await combinations.addAll([variant])
    session.setState((state) => ({ ...state, message: `“${title}” is kept beside this one.` }))
  }
  return (
    <div data-level={level}>
      <p className={classes.quiet}>
        Hardest count {load.before.toFixed(1)}
        {load.after !== load.before && `, then ${load.after.toFixed(1)}`} of {load.limit}.{' '}
        {swaps.length === 0
          ? fits
            ? 'It suits this level as it is.'
            : 'It is too hard, and no easier form helps: slow it down, or drop a layer.'
          : fits
            ? ''
            : 'Still over: slow it down as well.'}
      </p>
      <ul className={classes.swaps}>
        {swaps.map(({ events, at, from, to, kind, whose }) => (
          <li key={`${events[0]}${from}${whose}`}>
            <b className="counts">{at}</b> {whose && `${whose}: `}
            {kind === 'dropped'
              ? `leave ${from} out`
              : kind === 'added'
                ? `${to}, if you like`
                : to}
            {from && kind !== 'dropped' && <span className={classes.from}> for {from}</span>}
          </li>
        ))}
      </ul>
      {left.length > 0 && (
        <>
          <p className={classes.quiet}>Still too much:</p>
          <ul className={classes.swaps} aria-label="Still too much">
            {left.map((finding) => (
              <li key={`${finding.code}${finding.spot.pass}${finding.spot.at}`}>
                <b className="counts">{spotText(finding.spot)}</b>{' '}
                <span className={classes.from}>
                  {findingText(finding, checkedOf(document).house.units)}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {(swaps.length > 0 || document.level !== level) && (
        <div className={classes.row}>
          <PreviewButton session={session} changed={wholeOf(form)} does={`make it for ${level}`}>
            {swaps.length > 0 ? 'Use these forms' : `Mark it as ${level}`}
          </PreviewButton>
          {swaps.length > 0 && (
            <Button size="compact-sm" variant="default" onClick={() => void keepBeside()}>
              Keep as a variant
            </Button>
          )}
        </div>
      )}
    </div>
  )
}

function TempoLimits({ session }: { session: Session }) {
  const document = useDeferredValue(useStore(session, danceOf))
  const checked = checkedOf(document)
  const { most, obstacles } = useMemo(() => tempoRoom(checked), [checked])
  return (
    <>
      <p className={classes.quiet} data-most-tempo={most}>
        {most === undefined
          ? 'Something is too fast at any tempo.'
          : most === FASTEST
            ? 'Nothing is too fast up to 220.'
            : `Nothing is too fast up to ${most}.`}
      </p>
      <ol className={classes.limits}>
        {obstacles.map(({ most: tempo, finding }) => (
          <li key={`${finding.code}${finding.spot.pass}${finding.spot.at}`}>
            <button type="button" onClick={() => goTo(session, document, finding)}>
              <b className="counts">{spotText(finding.spot)}</b>{' '}
              {tempo < SLOWEST ? 'at every tempo' : `above ${tempo}`}
            </button>
            <span className={classes.from}> {findingText(finding, checked.house.units)}</span>
          </li>
        ))}
      </ol>
    </>
  )
}
