import { z } from 'zod'
import { UserError } from '../core/errors'
import { USUAL_LOOK } from '../core/house/dancerLook'
import { HOUSE_VERSION, HouseRules, USUAL_RULES } from '../core/house/house'
import { changedLike } from '../core/record/history'
import { type Upgrade, upgrade } from '../core/record/upgrade'
import type { Database, HouseRow } from './database'
import { kept, type OnKept } from './keeping'
import { createRepository } from './repository'
import type { UnsavedOf } from './unsaved'

/** The rules as they are kept; where they can't be read the usual ones, and what is wrong. */
interface KeptHouse {
  readonly rules: HouseRules
  readonly problem?: UserError
}

/** How this studio works: one record, kept in this browser. */
export interface HouseStore {
  readonly get: () => Promise<KeptHouse>
  /**
   * Makes a change in the rules that are stored by now, field by field; gives them as they are
   * then. A tab that is closed at once loses nothing.
   * @throws UserError where it can't be stored, or what is there is of a newer version.
   */
  readonly change: (before: HouseRules, after: HouseRules) => Promise<HouseRules>
  /** Makes the changes that windows that are gone have left; returns how many there were. */
  readonly recover: () => Promise<number>
  readonly watch: (changed: () => void) => () => void
}

/**
 * Older records of the house are brought up step by step: version 1 told all lengths in metres,
 * version 2 called the limits figures, and the dancer that is drawn a figure; version 3 had one
 * talk before a new layer and one before any other drill: who talked longer talks longer still;
 * version 4 drew one dancer for everybody; version 5 knew only the usual layerings.
 */
const UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (record) => ({ ...record, units: 'metres' }) },
  {
    from: 2,
    up: ({ figures, figure, ...others }) => ({
      ...others,
      limits: figures,
      ...(figure !== undefined && { dancer: figure }),
    }),
  },
  {
    from: 3,
    up: ({ limits, ...others }) => ({ ...others, limits: talkByThings(Object(limits)) }),
  },
  {
    from: 4,
    up: ({ dancer, ...others }) => ({
      ...others,
      ...(dancer !== undefined && { dancer: { ...Object(dancer), look: USUAL_LOOK } }),
    }),
  },
  { from: 5, up: (record) => record },
]

/** What was usual before a new layer, in seconds, and what is usual now for each new thing. */
const [TALK_NEW, A_THING] = [12, 8]

/** Talk before a new layer becomes talk for each new thing, as much longer or shorter as it was. */
function talkByThings({
  'plan.talkNew': talkNew,
  'plan.talk': talk,
  ...limits
}: Record<string, unknown>): Record<string, unknown> {
  return {
    ...limits,
    ...(typeof talkNew === 'number' && {
      'plan.talkThing': Math.round((A_THING * talkNew) / TALK_NEW),
    }),
    ...(typeof talk === 'number' && { 'plan.talkJoin': talk }),
  }
}

/**
 * Reads a record of house rules, of this version or an older one.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readHouse = (record: Readonly<Record<string, unknown>>): HouseRules =>
  HouseRules.parse(upgrade(record, HOUSE_VERSION, UPGRADES))

const Note = z.object({
  before: z.record(z.string(), z.unknown()),
  after: z.record(z.string(), z.unknown()),
})

/** The only code that touches the table of settings. */
export function createHouse(database: Database, onKept: OnKept, unsavedOf: UnsavedOf): HouseStore {
  const { settings } = database
  const unsaved = unsavedOf('-house', (raw) => {
    const { before, after } = Note.parse(raw)
    return { before: readHouse(before), after: readHouse(after) }
  })
  const read = ({ id, record }: HouseRow) => ({ id, rules: readHouse(record) })
  const repository = createRepository<ReturnType<typeof read>, HouseRow>(database, {
    table: settings,
    read,
    row: ({ id, rules }) => ({ id, record: rules }),
    conflict: 'made in what is there',
  })
  const get = async (): Promise<KeptHouse> => {
    const row = await settings.get('house')
    try {
      return { rules: row ? read(row).rules : USUAL_RULES }
    } catch (cause) {
      return {
        rules: USUAL_RULES,
        problem: new UserError(
          'Your house rules can’t be read by this version, so the usual ones are used.',
          'They are kept as they are. Load the newest version of the app to have them again.',
          { cause },
        ),
      }
    }
  }
  /** What is only damaged makes room; what a newer app wrote is not for this one to write over. */
  async function putDamagedAside() {
    const { problem } = await get()
    if (problem?.cause instanceof UserError) throw problem
    const row = problem && (await settings.get('house'))
    if (!row) return
    await settings.put({ ...row, id: 'damaged house' })
    await settings.delete('house')
  }
  const store = (before: HouseRules, after: HouseRules) =>
    repository.together(async () => {
      await putDamagedAside()
      let rules = USUAL_RULES
      await repository.change('house', (now) => {
        rules = HouseRules.parse(changedLike(now()?.rules ?? USUAL_RULES, before, after))
        return { id: 'house', rules }
      })
      return rules
    })
  let changes = 0
  return {
    get,
    async change(before, after) {
      const change = ++changes
      unsaved.write('rules', { before, after })
      const made = await kept(
        store(before, after),
        onKept,
        'Make room on the disk; it is saved with the next change.',
      )
      if (change === changes) unsaved.clear('rules')
      return made
    },
    recover: () => unsaved.recover(({ before, after }) => store(before, after)),
    watch: repository.watch,
  }
}
