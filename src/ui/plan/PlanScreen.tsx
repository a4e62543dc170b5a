import { Button, Menu, TextInput } from '@mantine/core'
import { IconPlayerPlayFilled, IconPrinter } from '@tabler/icons-react'
import { dequal } from 'dequal'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useParams } from 'react-router'
import type { PartId } from '../../core/combination/whose'
import { byDate } from '../../core/diary/diary'
import { knownOf, paceOf, reachedIn } from '../../core/diary/reached'
import { blocksOf } from '../../core/plan/blocks'
import {
  changeDrill,
  changeWishes,
  freed,
  goneFrom,
  moveDrill,
  removeDrill,
  setLocked,
  splitDrill,
} from '../../core/plan/edits'
import { lanesFor } from '../../core/plan/lanes'
import { type Materials, secondsOf } from '../../core/plan/material'
import { classSeconds, LEAST_MINUTES, NOTHING_KNOWN, type Plan } from '../../core/plan/plan'
import { withSongDrills } from '../../core/plan/songDrills'
import { totalsOf } from '../../core/plan/totals'
import { type StepWords, wordsOfPlan } from '../../core/plan/words'
import { DocumentButtons } from '../parts/DocumentButtons'
import { drag } from '../parts/drag'
import { KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { listed } from '../parts/locale'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import field from '../planning/planning.module.css'
import { today } from '../planning/today'
import { useBegin } from '../planning/useBegin'
import { type PlanningRecords, usePlanningRecords } from '../planning/usePlanning'
import { useServices } from '../stores/services'
import { DRILL_KEYS, type DrillHands, type DrillLanding, DrillRow } from './DrillRow'
import { PlanAside } from './PlanAside'
import { PlanPaper } from './PlanPaper'
import { PlanStrip } from './PlanStrip'
import classes from './plan.module.css'
import { SheetPaper } from './SheetPaper'
import { SongMenu } from './SongMenu'
import { useLanes } from './useLanes'
import { usePlanDocument } from './usePlanDocument'
import { WishesForm } from './WishesForm'

/** One plan: the drills of a class, changed by hand. */
export function PlanScreen() {
  const { id = '' } = useParams()
  const { error, ready } = usePlanningRecords()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  const plan = ready.plans.find((one) => one.id === id)
  if (!plan)
    return (
      <ProblemPage
        what="This plan is not here."
        toDo="Go to Plans; make a new one from a combination there."
      />
    )
  return <OpenPlan key={id} first={plan} {...ready} />
}

/** What the paper has on it: the plan, the count sheet of a combination, or one dancer's page of it. */
interface Paper {
  readonly combination?: string
  readonly part?: PartId
  readonly isLarge?: true
}

function OpenPlan({
  first,
  planning,
  combinations: all,
  deleted,
  groups,
  plans,
  classes: given,
  materials,
}: PlanningRecords & { readonly first: Plan }) {
  const { judge, newId } = useServices()
  const document = usePlanDocument(first, planning.plans, materials, judge)
  const { plan, change, proposal } = document
  const [open, setOpen] = useState<string>()
  const list = useRef<HTMLOListElement>(null)
  /** The places of a drill that is dragged: where it is, and where it would come to. */
  const [landing, setLanding] = useState<{ readonly from: number; readonly to: number }>()
  const [paper, setPaper] = useState<Paper>()
  const sheet = paper?.combination === undefined ? undefined : materials.find(paper.combination)
  useEffect(() => {
    if (paper === undefined) return
    // The browser waits in here until its dialog is closed.
    window.print()
    setPaper(undefined)
  }, [paper])
  const gone = goneFrom(plan, materials)
  const totals = useMemo(() => totalsOf(plan, materials), [plan, materials])
  const words = useWords(plan, materials)
  const lanes = useLanes(plan.wishes, materials)
  const pace = useMemo(
    () =>
      plan.group === undefined
        ? undefined
        : paceOf(
            given.filter(({ group }) => group === plan.group),
            materials,
          ),
    [plan.group, given, materials],
  )
  const blocks = useMemo(
    () =>
      new Map(blocksOf(plan.drills, materials).map((block) => [block.drills[0]?.id ?? '', block])),
    [plan.drills, materials],
  )
  const keys = useScreenKeys([...undoKeys(document.undo, document.redo), ...DRILL_KEYS])
  useLeaveWarning(document.kept === 'failed')
  const latest = useRef(change)
  latest.current = change
  // The same hands for as long as the plan is open, so that only the rows that change are drawn.
  const hands = useMemo(
    (): DrillHands => ({
      change: (id, made) => {
        const what = Object.keys(made).join(', ')
        latest.current(what, (now) => changeDrill(now, id, made), `${id} ${what}`)
      },
      lock: (id, isLocked) =>
        latest.current(isLocked ? 'lock' : 'unlock', (now) => setLocked(now, id, isLocked)),
      split: (id) => latest.current('split', (now) => splitDrill(now, id) ?? now),
      remove: (id) => latest.current('remove', (now) => removeDrill(now, id)),
      open: setOpen,
      endEarly: (minutes) =>
        latest.current('length of the class', (now) =>
          changeWishes(now, { minutes: Math.max(LEAST_MINUTES, now.wishes.minutes - minutes) }),
        ),
      move: (id, by) => latest.current('move', (now) => moveDrill(now, id, placeOf(now, id) + by)),
      drag: (event, id) => {
        const rows = [...(list.current?.children ?? [])]
        const from = rows.findIndex((row) => row.contains(event.currentTarget))
        let to = from
        drag(
          event,
          () => ({
            move({ clientY }) {
              to = placeUnder(rows, from, clientY)
              setLanding({ from, to })
            },
            drop() {
              setLanding(undefined)
              if (to !== from) latest.current('move', (now) => moveDrill(now, id, to))
            },
            cancel: () => setLanding(undefined),
          }),
          { least: 4, atOnce: true },
        )
      },
    }),
    [],
  )
  const beginOf = useBegin(planning, groups)
  // What was changed last may still be thought about.
  const begin = async () => beginOf(await document.planned())
  const forGroup = async (id: string | undefined) => {
    const { all: given } = await planning.classes.list()
    const own = given.filter(({ group }) => id !== undefined && group === id).sort(byDate)
    const known = id === undefined ? NOTHING_KNOWN : knownOf(reachedIn(own), materials, today())
    change('group', (now) => {
      const { group: _, ...rest } = now
      return changeWishes(id === undefined ? rest : { ...rest, group: id }, { known })
    })
  }
  let from = 0
  return (
    <main className={classes.screen}>
      <div className={classes.top}>
        <TextInput
          className={`${classes.title} ${field.title}`}
          aria-label="Name of the plan"
          value={plan.title}
          placeholder="Name of the class"
          onChange={({ currentTarget: { value } }) =>
            change('name', (now) => ({ ...now, title: value }), 'name')
          }
        />
        <DocumentButtons document={document} onKeys={keys.onOpen} />
        <KeysHelp {...keys} />
        <Button
          variant="default"
          size="compact-md"
          disabled={!plan.drills.some(({ locked }) => locked) && plan.without.length === 0}
          onClick={() => change('plan it all again', freed)}
        >
          Plan it all again
        </Button>
        <SongMenu
          {...materials.laidSongs}
          onPick={(song) =>
            change('with music', (now) => withSongDrills(now, song, materials, newId))
          }
        />
        <Menu position="bottom-end">
          <Menu.Target>
            <Button variant="default" size="compact-md" leftSection={<IconPrinter size={16} />}>
              Print
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => setPaper({})}>This class, one page</Menu.Item>
            {plan.wishes.combinations.flatMap((id) => {
              const one = all.find((each) => each.id === id)
              return one
                ? [
                    <Menu.Item key={id} onClick={() => setPaper({ combination: id })}>
                      Count sheet of {one.title}, each side with its key poses
                    </Menu.Item>,
                    <Menu.Item
                      key={`${id} large`}
                      onClick={() => setPaper({ combination: id, isLarge: true })}
                    >
                      The same in large print
                    </Menu.Item>,
                    ...(one.parts ?? []).map(({ id: part, name }) => (
                      <Menu.Item
                        key={`${id} ${part}`}
                        onClick={() => setPaper({ combination: id, part })}
                      >
                        {name}’s page of {one.title}
                      </Menu.Item>
                    )),
                  ]
                : []
            })}
          </Menu.Dropdown>
        </Menu>
        <Button
          className={classes.begin}
          size="compact-md"
          leftSection={<IconPlayerPlayFilled size={15} />}
          onClick={() => void begin()}
        >
          Begin class
        </Button>
      </div>
      {gone.length > 0 && (
        <Problem
          what={`${listed(gone.map((id) => `“${deleted.get(id) ?? 'A combination'}”`))} ${gone.length === 1 ? 'is' : 'are'} not here any more.`}
          toDo="Its drills stay as they are, and nothing is planned again until it is back (Combinations, Deleted) or taken off this plan."
        />
      )}
      <PlanStrip
        drills={plan.drills}
        materials={materials}
        seconds={classSeconds(plan.wishes)}
        onPick={(id) => {
          setOpen(id)
          const place = plan.drills.findIndex((drill) => drill.id === id)
          list.current?.children[place]?.scrollIntoView({ block: 'nearest' })
        }}
      />
      <div className={classes.body}>
        <WishesForm
          wishes={plan.wishes}
          proposal={proposal}
          all={all}
          gone={gone.map((id) => ({ id, title: `${deleted.get(id) ?? 'gone'} (deleted)` }))}
          groups={groups}
          group={plan.group}
          pace={pace}
          onWishes={(label, made) =>
            change(label, (now) => changeWishes(now, made), `wishes ${Object.keys(made).join()}`)
          }
          onGroup={(id) => void forGroup(id)}
        />
        <section className={classes.drills} aria-label="Drills">
          <ol ref={list}>
            {plan.drills.map((drill, i) => {
              const seconds = secondsOf(drill, materials)
              const start = from
              from += seconds
              return (
                <DrillRow
                  key={drill.id}
                  drill={drill}
                  block={blocks.get(drill.id)?.title}
                  blockSeconds={blocks.get(drill.id)?.seconds}
                  words={words.get(drill.id)}
                  lanes={lanesFor(drill, lanes, materials)}
                  from={start}
                  seconds={seconds}
                  materials={materials}
                  remarks={totals.remarks.flatMap((one) =>
                    one.drill === drill.id ? one.text : [],
                  )}
                  gone={
                    drill.combination !== undefined && gone.includes(drill.combination)
                      ? (deleted.get(drill.combination) ?? 'deleted')
                      : undefined
                  }
                  isOpen={open === drill.id}
                  landing={landingAt(i, landing)}
                  hands={hands}
                />
              )
            })}
          </ol>
        </section>
        <PlanAside
          plan={plan}
          others={plans.filter((one) => one.id !== first.id)}
          totals={totals}
          proposal={proposal}
          materials={materials}
        />
      </div>
      {sheet ? (
        <SheetPaper material={sheet} part={paper?.part} isLarge={paper?.isLarge === true} />
      ) : (
        <PlanPaper plan={plan} lanes={lanes} materials={materials} />
      )}
    </main>
  )
}

/** What is said before each step; the very same words as long as they say the same, so that only rows that change are drawn. */
function useWords({ drills, wishes }: Plan, materials: Materials) {
  const before = useRef<ReadonlyMap<string, StepWords>>(new Map())
  return useMemo(() => {
    const now = new Map(
      [...wordsOfPlan({ drills, wishes }, materials)].map(([id, words]) => {
        const same = before.current.get(id)
        return [id, same && dequal(same, words) ? same : words] as const
      }),
    )
    before.current = now
    return now
  }, [drills, wishes, materials])
}

const placeOf = (plan: Plan, id: string): number => plan.drills.findIndex((one) => one.id === id)

/** The place a drill comes to that is let go at a height of the window. */
function placeUnder(rows: readonly Element[], from: number, clientY: number): number {
  const above = rows.filter((row, i) => {
    const { top, height } = row.getBoundingClientRect()
    return i !== from && top + height / 2 < clientY
  })
  return above.length
}

/** What a row shows of a drag: that it is in hand, or that the dragged one comes before or behind it. */
const landingAt = (
  place: number,
  landing: { readonly from: number; readonly to: number } | undefined,
): DrillLanding | undefined =>
  landing?.from === place
    ? 'in hand'
    : landing?.to === place
      ? landing.to < landing.from
        ? 'before'
        : 'behind'
      : undefined
