import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { beforeEach, describe, expect, it } from 'vitest'
import { demo } from '../../tests/demo'
import { placeNamed } from '../../tests/place'
import { keepingIn } from '../../tests/slots'
import { classOn, materials, newPlan, tuesday, wishesOf } from '../../tests/teaching'
import { afterAction, beginClass } from '../core/class/underWay'
import { USUAL_RULES } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { pageDataOf } from '../core/practice/makePage'
import { sentPageOf } from '../core/practice/sentPage'
import { newSeries } from '../core/series/series'
import { restoreBackup, writeBackup } from './backup'
import { Database } from './database'
import planningDemo from './demo/planning.json'
import { createPlanning, readPlanningDemo } from './planning'

const plan = newPlan('plan', 'Tuesday', wishesOf('Copper Lantern', { minutes: 30 }), materials)
const group = { ...tuesday, id: 'g' }
const entry = classOn('2026-11-25', [], { id: 'c', group: 'g', plan: 'plan' })

let names = 0
const place = (full = false) => placeNamed(`teaching-${names++}`, { full, now: 7 })

let here: ReturnType<typeof place>
beforeEach(() => {
  here = place()
})

describe('plans, classes and groups', () => {
  it('are kept, changed, taken out and had back', async () => {
    const { plans } = here.planning
    await plans.put(plan)
    expect(await plans.get('plan')).toEqual(plan)
    expect(await plans.change('plan', (now) => ({ ...now, title: 'Later' }))).toMatchObject({
      title: 'Later',
    })
    expect(await plans.change('nowhere', (now) => now)).toBeUndefined()
    await plans.remove('plan')
    expect((await plans.list()).all).toEqual([])
    expect(await plans.get('plan')).toBeUndefined()
    await plans.restore('plan')
    expect((await plans.list()).all.map(({ title }) => title)).toEqual(['Later'])
  })

  it('lose nothing when two windows change one at the same time', async () => {
    const { classes } = here.planning
    const other = createPlanning(
      here.database,
      here.store,
      keepingIn(here.store, () => 8),
    ).classes
    await classes.put(entry)
    await Promise.all([
      classes.change('c', (now) => ({ ...now, notes: `${now.notes}a` })),
      other.change('c', (now) => ({ ...now, next: 'b' })),
      classes.change('c', (now) => ({ ...now, notes: `${now.notes}c` })),
    ])
    expect(await classes.get('c')).toMatchObject({ notes: 'ac', next: 'b' })
  })

  it('are saved by the next window when a tab is closed in the middle of a change', async () => {
    await here.planning.plans.put(plan)
    await here.planning.classes.put(entry)
    const closing = new Database(here.database.name)
    const last = createPlanning(
      closing,
      here.store,
      keepingIn(here.store, () => 9, { window: 'closing' }),
    )
    await last.plans.list()
    await last.classes.get('c')
    const changes = [
      last.plans.change('plan', (now) => ({ ...now, title: 'One' })),
      last.plans.change('plan', (now) => ({ ...now, title: `${now.title} and two` })),
      last.classes.change('c', (now) => ({ ...now, next: 'Hips' })),
    ]
    closing.close()
    expect((await Promise.allSettled(changes)).map(({ status }) => status)).not.toContain(
      'fulfilled',
    )
    // Another window that is still there takes nothing of it.
    expect(await here.planning.recover()).toBe(0)
    const open = (window: string) =>
      createPlanning(
        here.database,
        here.store,
        keepingIn(here.store, () => 10, { window, areGone: true }),
      )
    expect(await open('next').recover()).toBe(2)
    expect(await here.planning.plans.get('plan')).toMatchObject({ title: 'One and two' })
    expect(await here.planning.classes.get('c')).toMatchObject({ next: 'Hips' })
    expect(await open('third').recover()).toBe(0)
  })

  it('are saved to the last letter where earlier ones were still being stored', async () => {
    let clock = 10
    await here.planning.classes.put(entry)
    const closing = new Database(here.database.name)
    const last = createPlanning(
      closing,
      here.store,
      keepingIn(here.store, () => clock++, { window: 'closing' }),
    )
    await last.classes.list()
    const [first, ...later] = [...'Hips'].map((_, i) =>
      last.classes.change('c', (now) => ({ ...now, next: 'Hips'.slice(0, i + 1) })),
    )
    // The first letter is stored long after the last was typed; then the tab is gone.
    await first
    clock += 1000
    closing.close()
    await Promise.allSettled(later)
    const next = createPlanning(
      here.database,
      here.store,
      keepingIn(here.store, () => clock++, { window: 'next', areGone: true }),
    )
    await next.recover()
    expect((await next.classes.get('c'))?.next).toBe('Hips')
  })

  it('leave no notes when they are stored, and old notes never go over what is newer', async () => {
    await here.planning.plans.put(plan)
    await here.planning.plans.change('plan', (now) => ({ ...now, title: 'Stored' }))
    expect(here.store.length).toBe(0)
    const old = { id: 'plan', changedAt: 3, record: { ...plan, title: 'Old' } }
    here.store.setItem('molten-sway unsaved-plans gone plan', JSON.stringify(old))
    here.store.setItem('molten-sway unsaved-classes gone c', '{"id":"c","changedAt":99,')
    const next = createPlanning(
      here.database,
      here.store,
      keepingIn(here.store, () => 10, { window: 'next', areGone: true }),
    )
    await next.recover()
    expect(await next.plans.get('plan')).toMatchObject({ title: 'Stored' })
    expect((await next.classes.list()).all).toEqual([])
    expect(here.store.length).toBe(0)
  })

  it('that can’t be read are counted and left where they are', async () => {
    const { groups } = here.planning
    await groups.put(group)
    await here.database.groups.put({
      id: 'new',
      changedAt: 1,
      record: { ...group, id: 'new', schemaVersion: 9 },
    })
    expect(await groups.list()).toEqual({ all: [group], unreadable: 1 })
    expect(await groups.get('new')).toBeUndefined()
    expect(await here.database.groups.count()).toBe(2)
  })
})

describe('the demo', () => {
  it('is invented classes that can be read, loaded once and never over what is there', async () => {
    const { planning } = here
    const read = async () => readPlanningDemo(planningDemo)
    await planning.addDemoOnce(read)
    const { all } = await planning.classes.list()
    expect(all.length).toBeGreaterThan(5)
    for (const { plan: id } of all) expect((await planning.plans.get(id ?? ''))?.id).toBe(id)
    const known = new Set(demo.map(({ id }) => id))
    for (const { combination } of all.flatMap(({ danced }) => danced))
      expect(known.has(combination ?? '')).toBe(true)
    await planning.classes.remove(all[0]?.id ?? '')
    await planning.addDemoOnce(read)
    expect((await planning.classes.list()).all).toHaveLength(all.length - 1)
  })
})

describe('a class on the floor', () => {
  const later = () =>
    createPlanning(
      here.database,
      here.store,
      keepingIn(here.store, () => 1),
    ).underWay

  it('is written down at once, found again, and forgotten when it is over', async () => {
    const { underWay: floor } = here.planning
    const begun = beginClass(plan, entry)
    const dancing = afterAction(begun, { kind: 'start', now: 3 }, materials)
    floor.write(dancing, 4)
    expect(floor.glance('c')).toEqual({ session: dancing, step: 4 })
    expect(await later().read('c')).toEqual({ session: dancing, step: 4 })
    expect(await floor.list()).toEqual([dancing])
    floor.write(afterAction(dancing, { kind: 'go', index: 99 }, materials), 5)
    expect(await floor.list()).toEqual([])
    await floor.clear('c')
    expect(await floor.read('c')).toBeUndefined()
  })

  it('is there after a browser was killed that had not yet written its local storage', async () => {
    const dancing = afterAction(beginClass(plan, entry), { kind: 'start', now: 3 }, materials)
    here.planning.underWay.write(dancing, 1)
    const asking = afterAction(dancing, { kind: 'finished' }, materials)
    const before = here.store.getItem('molten-sway floor c') ?? ''
    here.planning.underWay.write(asking, 2)
    await expect.poll(async () => (await here.database.floors.get('c'))?.step).toBe(2)
    // The disk has the older note, or none at all.
    here.store.setItem('molten-sway floor c', before)
    expect(await later().read('c')).toEqual({ session: asking, step: 2 })
    here.store.removeItem('molten-sway floor c')
    expect(await later().read('c')).toEqual({ session: asking, step: 2 })
    expect(await later().list()).toEqual([asking])
  })

  it('of an older app is read as it stands', async () => {
    const begun = beginClass(plan, entry)
    here.store.setItem('molten-sway floor c', JSON.stringify(begun))
    expect(await later().read('c')).toEqual({ session: begun, step: 0 })
  })

  it('passes over what is damaged, and goes on where there is no room to write', async () => {
    here.store.setItem('molten-sway floor c', '{"kind":"floor"')
    here.store.setItem('molten-sway floor d', '{"kind":"floor","schemaVersion":1}')
    expect(await here.planning.underWay.read('c')).toBeUndefined()
    expect(await here.planning.underWay.list()).toEqual([])
    const full = place(true).planning.underWay
    full.write(beginClass(plan, entry), 1)
    // What local storage has no room for is kept in the database.
    await expect.poll(() => full.read('c')).toMatchObject({ step: 1 })
  })
})

describe('a backup', () => {
  it('brings plans, the diary, groups and spoken words along, and leaves what is here', async () => {
    const { plans, classes, groups, spoken } = here.planning
    await plans.put(plan)
    await classes.put(entry)
    await groups.put(group)
    await spoken.save({
      text: 'Drop',
      samples: Float32Array.from([0, 0.5, -1]),
      rate: 16_000,
      onset: 0.01,
    })
    const sent = {
      ...sentPageOf(pageDataOf(demo[0]!, vocabulary, USUAL_RULES, { made: '2026-11-30' }), 'g'),
      returns: [{ id: 'r', day: '2026-12-01', who: 'Mia', days: [], rows: [] }],
    }
    await here.planning.sent.put(sent)
    const weeks = newSeries('weeks', { title: 'Weeks', level: 'improver', minutes: 60 })
    await here.planning.series.put(weeks)
    // What students sent back is only in it where it is asked for.
    expect(Object.keys(unzipSync(await writeBackup(here)))).not.toContain('sent-back.json')
    const bytes = await writeBackup(here, { withReturns: true })
    const there = place()
    await there.planning.classes.put({ ...entry, notes: 'mine' })
    const reports = await restoreBackup(bytes, there)
    expect(reports.filter(({ ok }) => !ok)).toEqual([])
    expect(await there.planning.plans.get('plan')).toEqual(plan)
    expect(await there.planning.groups.get('g')).toEqual(group)
    expect(await there.planning.sent.get(sent.id)).toEqual(sent)
    expect(await there.planning.series.get('weeks')).toEqual(weeks)
    expect(await there.planning.classes.get('c')).toMatchObject({ notes: 'mine' })
    const [word] = await there.planning.spoken.list()
    expect(word).toMatchObject({ id: 'drop', text: 'Drop', rate: 16_000 })
    for (const [i, x] of [0, 0.5, -1].entries()) expect(word?.samples[i]).toBeCloseTo(x, 4)
    await there.planning.spoken.remove('drop')
    expect(await there.planning.spoken.list()).toEqual([])
  })

  it('says what of it can’t be read, and brings the rest', async () => {
    await here.planning.plans.put(plan)
    await here.planning.groups.put(group)
    const files = unzipSync(await writeBackup(here))
    const manifest = JSON.parse(strFromU8(files['manifest.json']!))
    const damage = async (path: string, text: string) => {
      files[path] = strToU8(text)
      const hash = await crypto.subtle.digest('SHA-256', files[path].slice())
      const sha256 = [...new Uint8Array(hash)].map((b) => b.toString(16).padStart(2, '0')).join('')
      manifest.files = manifest.files.map((file: { path: string }) =>
        file.path === path ? { path, sha256 } : file,
      )
    }
    await damage('plans.json', JSON.stringify([plan, { ...plan, id: 'x', drills: 'none' }]))
    await damage('groups.json', 'no list')
    files['manifest.json'] = strToU8(JSON.stringify(manifest))
    const there = place()
    const reports = await restoreBackup(zipSync(files), there)
    expect(reports.find(({ name }) => name === 'plans.json')?.text).toMatch(
      /1 plans came in. 1 can’t be read/,
    )
    expect(reports.find(({ name }) => name === 'groups.json')).toMatchObject({ ok: false })
    expect((await there.planning.plans.list()).all).toEqual([plan])
  })
})
