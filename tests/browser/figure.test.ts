import { beforeAll, describe, expect, it } from 'vitest'
import { jointOf } from '../../src/core/pose/joints'
import { type App, bytesOf, expectAccessible, soundsOf, startApp } from './app'
import { canvasOf, dancers, expectCorePose, lantern, open, shownOn, stageOf } from './stage'

let app: App
beforeAll(async () => {
  app = await startApp()
})

describe('the dancing figure', () => {
  it('dances at a quarter of the tempo with every count on time', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page)
    await canvasOf(page).waitFor()
    await page.getByLabel('Speed').selectOption('0.25')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect
      .poll(async () => (await soundsOf(page)).length, { timeout: 20_000 })
      .toBeGreaterThan(5)
    // The count-in: whole counts, four times as far apart as at tempo.
    const whens = (await soundsOf(page)).slice(0, 4).map(({ when }) => when)
    for (const [i, when] of whens.slice(1).entries())
      expect(when - (whens[i] ?? 0)).toBeCloseTo((4 * 60) / lantern.tempo, 6)
    await context.close()
  })

  it('is looked at count by count, and moment by moment by dragging over the ruler', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page)
    await canvasOf(page).waitFor()
    await page.getByRole('application').focus()
    for (const count of [2, 3]) {
      await page.keyboard.press('ArrowRight')
      await expect.poll(async () => (await shownOn(page)).tick).toBe((count - 1) * 12)
      expectCorePose(await shownOn(page))
    }
    const line = await page.locator('[data-line="R:1"]').boundingBox()
    if (!line) throw new Error('no line B')
    await page.mouse.move(line.x + line.width * 0.3, line.y + 9)
    await page.mouse.down()
    const ticks: number[] = []
    for (const share of [0.4, 0.5, 0.6]) {
      await page.mouse.move(line.x + line.width * share, line.y + 9)
      await page.waitForTimeout(120)
      const shown = await shownOn(page)
      expectCorePose(shown)
      ticks.push(shown.tick)
    }
    expect(ticks[0]).toBeGreaterThan(96)
    expect(ticks[1]).toBeGreaterThan(ticks[0] ?? 0)
    expect(ticks[2]).toBeGreaterThan(ticks[1] ?? 0)
    await page.mouse.up()
    // Where it was left, the cursor stands.
    await expect.poll(async () => (await shownOn(page)).tick % 6).toBe(0)
    await context.close()
  })

  it('shows either side, both, from everywhere, and says whose right is where', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page)
    await canvasOf(page).waitFor()
    // She is there as a flat drawing until what draws her in space is ready.
    expect(await canvasOf(page).evaluate((canvas) => canvas.style.background)).toMatch(/blob:/)
    const stage = stageOf(page)
    const pixels = () => canvasOf(page).screenshot()
    const seen = new Set<string>()
    for (const [view, words] of [
      ['behind', 'its right is your right'],
      ['mirror', 'its right is on your right'],
      ['facing', 'its right is on your left'],
      ['side', 'its front is to your right'],
      ['above', 'front at the top'],
    ] as const) {
      await stage.getByLabel('Seen from').selectOption(view)
      await stage.getByText(words).waitFor()
      // The stage draws with the next frame, which a busy machine may be late with.
      await expect
        .poll(async () => seen.has((await pixels()).toString('base64')), { timeout: 8000 })
        .toBe(false)
      seen.add((await pixels()).toString('base64'))
    }
    expect(seen.size).toBe(5)
    await stage.getByLabel('Seen from').selectOption('behind')
    await expect
      .poll(async () => [...seen].at(-1) === (await pixels()).toString('base64'), { timeout: 8000 })
      .toBe(false)
    const alone = await pixels()
    for (const choice of ['Beside', 'Trails']) {
      await stage.getByRole('button', { name: choice, exact: true }).click()
      await expect.poll(async () => (await pixels()).equals(alone), { timeout: 8000 }).toBe(false)
    }
    for (const ghost of ['next', 'still']) {
      const before = await pixels()
      await stage.getByLabel('Shows through beside it').selectOption(ghost)
      await expect.poll(async () => (await pixels()).equals(before), { timeout: 8000 }).toBe(false)
    }
    // Larger than it is danced is said on the picture.
    const before = await pixels()
    await stage.getByLabel('How large isolations are shown').selectOption('1.6')
    await stage.getByText('Isolations at 160 %').waitFor()
    await expect.poll(async () => (await pixels()).equals(before), { timeout: 8000 }).toBe(false)
    await stage.getByLabel('How large isolations are shown').selectOption('1')
    await expectAccessible(page)
    await page.getByRole('application').press('/')
    await expect.poll(async () => (await shownOn(page)).side).toBe('L')
    expectCorePose(await shownOn(page))
    await context.close()
  })

  it('is as tall as the house says, in what it says, and dances the same', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await page.getByRole('link', { name: 'House rules' }).click()
    await page.getByRole('textbox', { name: 'Figure height' }).fill('1.4')
    await page.keyboard.press('Tab')
    for (const [part, word] of [
      ['body', 'a man’s'],
      ['outfit', 'long skirt'],
      ['hair', 'short'],
      ['skin', 'deep'],
    ] as const)
      await page.getByLabel(`Figure ${part}`).selectOption(word)
    await page.getByRole('link', { name: 'Combinations', exact: true }).click()
    await open(page)
    await canvasOf(page).waitFor()
    const { side, tick, palm } = await shownOn(page)
    const core = jointOf(dancers[side].poseAt(tick), 'palmR')
    for (const [i, value] of core.entries()) expect(palm[i]).toBeCloseTo((value * 1.4) / 1.65, 3)
    await context.close()
  })

  it('leaves only the layer that is touched, on the feet', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page)
    await canvasOf(page).waitFor()
    const box = await canvasOf(page).boundingBox()
    if (!box) throw new Error('no stage')
    // The hips are in the middle of a figure that stands.
    await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.52)
    const hips = stageOf(page).getByRole('button', { name: 'Only the hips on the feet' })
    await expect.poll(() => hips.getAttribute('aria-pressed')).toBe('true')
    // They fill the picture, unless all of her is to be seen.
    const near = (await canvasOf(page).screenshot()).toString('base64')
    await stageOf(page).getByRole('button', { name: 'Near', exact: true }).click()
    await expect
      .poll(async () => (await canvasOf(page).screenshot()).toString('base64') === near)
      .toBe(false)
    expect(await page.locator('[data-line="R:0"] .layer-arms[data-event]').count()).toBe(0)
    // The arms hang where they began, though they are written up by then.
    await page.getByRole('application').focus()
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
    await expect.poll(async () => (await shownOn(page)).tick).toBe(48)
    expect((await shownOn(page)).palm[1]).toBeLessThan(1)
    await page.keyboard.press('0')
    await expect.poll(async () => (await shownOn(page)).palm[1] ?? 0).toBeGreaterThan(1.4)
    await context.close()
  })

  it('saves its pose, the key poses of a phrase, and a film that can be stopped', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page, 'Find the Slip')
    await canvasOf(page).waitFor()
    const save = async (item: string | RegExp) => {
      await stageOf(page).getByRole('button', { name: 'Save', exact: true }).click()
      const [file] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('menuitem', { name: item }).click(),
      ])
      return { name: file.suggestedFilename(), bytes: await bytesOf(file) }
    }
    const widths: number[] = []
    for (const item of [/This pose as a picture, large/, /This pose as a picture, small/]) {
      const picture = await save(item)
      expect(picture.name).toBe('find-the-slip-a1.png')
      expect(picture.bytes.subarray(1, 4).toString()).toBe('PNG')
      // Its first chunk says how wide it is.
      widths.push(picture.bytes.readUInt32BE(16))
    }
    expect(widths).toEqual([1600, 800])
    const strip = await save(/Poses of phrase A as one picture/)
    expect(strip.name).toBe('find-the-slip-a-poses.png')
    expect(strip.bytes.readUInt32BE(16)).toBe(1200)
    const poses = (await save(/Key poses of phrase A/)).bytes.toString()
    expect(poses.match(/<g /g)).toHaveLength(8)
    expect(poses).toContain('phrase A, right side')
    // What is larger than it is danced is saved only where that is chosen, and says so.
    await page.getByLabel('How large isolations are shown').selectOption('1.6')
    const again = (await save(/Key poses of phrase A/)).bytes.toString()
    expect(again).toBe(poses)
    await stageOf(page).getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('menuitem', { name: /saved as danced: save them at 160 %/ }).click()
    await page.keyboard.press('Escape')
    const larger = (await save(/Key poses of phrase A/)).bytes.toString()
    expect(larger).toContain('Isolations at 160 %.')
    expect(larger.replace(' Isolations at 160 %.', '')).not.toBe(poses)
    await page.getByLabel('How large isolations are shown').selectOption('1')

    const film = page.getByRole('dialog', { name: 'Practice video' })
    await stageOf(page).getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('menuitem', { name: 'Practice video…' }).click()
    await film.getByLabel('Size').selectOption('small')
    await film.getByLabel('Sides').selectOption('one')
    await film.getByText(/It will be an? (MP4|WebM) file/).waitFor()
    await film.getByRole('textbox', { name: 'Counts a minute' }).fill('220')
    await film.getByRole('button', { name: 'Film it' }).click()
    await film.getByRole('progressbar').waitFor()
    await film.getByRole('button', { name: 'Stop' }).click()
    await film.getByRole('button', { name: 'Film it' }).waitFor()
    const [made] = await Promise.all([
      page.waitForEvent('download', { timeout: 120_000 }),
      film.getByRole('button', { name: 'Film it' }).click(),
    ])
    expect(made.suggestedFilename()).toBe('find-the-slip-practice.webm')
    const bytes = await bytesOf(made)
    const played = await page.evaluate(async (base64) => {
      const video = document.createElement('video')
      const raw = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0))
      video.src = URL.createObjectURL(new Blob([raw], { type: 'video/webm' }))
      await new Promise((done) => {
        video.onloadedmetadata = done
        video.onerror = done
      })
      return { seconds: video.duration, width: video.videoWidth, height: video.videoHeight }
    }, bytes.toString('base64'))
    // 4 counts of count-in and 16 counts at 220 a minute, and a moment more.
    expect(played.seconds).toBeGreaterThan((20 * 60) / 220)
    expect(played.seconds).toBeLessThan((20 * 60) / 220 + 1)
    expect([played.width, played.height]).toEqual([640, 360])
    await context.close()
  })

  it('is drawn flat where there is no WebGL, and stands still on each count for who wants no motion', async () => {
    const flat = await app.visit()
    await open(flat.page)
    const drawing = stageOf(flat.page).getByRole('img', { name: /The figure, right side/ })
    await drawing.waitFor()
    const before = await drawing.innerHTML()
    await flat.page.getByRole('application').focus()
    for (let i = 0; i < 3; i++) await flat.page.keyboard.press('ArrowRight')
    await expect.poll(() => drawing.innerHTML()).not.toBe(before)
    // It dances in step with what is lit, between the counts too.
    await flat.page.getByRole('button', { name: 'Play', exact: true }).click()
    await flat.page.locator('[data-lit="true"]').waitFor()
    const seen = await flat.page.evaluate(async () => {
      const list: { tick: number; lit: number; drawn: string }[] = []
      const end = performance.now() + 4000
      while (performance.now() < end) {
        await new Promise(requestAnimationFrame)
        const figure = document.querySelector<SVGElement>('[data-flat]')
        const lit = document.querySelector('[data-lit="true"]')?.textContent
        const [, tick] = (figure?.dataset.shown ?? '').split(' ')
        if (lit) list.push({ tick: Number(tick), lit: Number(lit), drawn: figure?.innerHTML ?? '' })
      }
      return list
    })
    expect(new Set(seen.map(({ drawn }) => drawn)).size).toBeGreaterThan(10)
    expect(seen.some(({ tick }) => tick % 12 !== 0)).toBe(true)
    const inStep = seen.filter(({ tick, lit }) => (Math.floor(tick / 12) % 8) + 1 === lit)
    // A frame at the very edge of a count may draw the one before the other.
    expect(inStep.length / seen.length).toBeGreaterThan(0.9)
    await flat.context.close()

    const still = await app.visit({ inSpace: true, reducedMotion: 'reduce' })
    await open(still.page)
    await canvasOf(still.page).waitFor()
    await still.page.getByRole('button', { name: 'Play', exact: true }).click()
    await still.page.locator('[data-lit="true"]').waitFor()
    const ticks = new Set<number>()
    for (let i = 0; i < 20; i++) {
      await still.page.waitForTimeout(90)
      ticks.add((await shownOn(still.page)).tick)
    }
    expect(ticks.size).toBeGreaterThan(1)
    expect([...ticks].filter((tick) => tick % 12 !== 0)).toEqual([])
    await still.context.close()
  })

  it('dances each move beside its words, and what is marked while one is typed', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await page.getByRole('link', { name: 'Moves', exact: true }).click()
    await page.getByRole('option', { name: /Grapevine/ }).click()
    const loop = page.getByRole('img', { name: /^Grapevine, danced/ })
    await expect.poll(() => loop.getAttribute('data-shown')).not.toBeNull()
    const first = await loop.getAttribute('data-shown')
    await expect.poll(() => loop.getAttribute('data-shown')).not.toBe(first)
    // Both sides at once, each named; a phase that is touched is held beside it.
    const shown = page.getByRole('region', { name: 'Grapevine, danced' })
    await shown.getByText('left side', { exact: true }).waitFor()
    await shown.getByRole('button', { name: 'Hold phase 3 beside it' }).click()
    await shown.getByText('held at phase 3').waitFor()
    await page
      .getByRole('searchbox')
      .or(page.getByPlaceholder(/Search by any/))
      .fill('hip circle')
    await page.getByRole('option', { name: /Small hip circle/ }).click()
    await page.getByText('Isolations at 130 %').waitFor()
    await expectAccessible(page)
    await page.getByRole('link', { name: 'Combinations', exact: true }).click()
    await open(page)
    await page.getByRole('application').focus()
    await page.keyboard.press('ArrowUp')
    await page.keyboard.type('hip l')
    await page.getByRole('img', { name: /, danced/ }).waitFor()
    await page.getByText('left side', { exact: true }).waitFor()
    await expect.poll(() => page.getByRole('img', { name: /^Phase / }).count()).toBe(4)
    const name = await page.getByRole('img', { name: /, danced/ }).getAttribute('aria-label')
    await page.keyboard.press('ArrowDown')
    await expect
      .poll(() => page.getByRole('img', { name: /, danced/ }).getAttribute('aria-label'))
      .not.toBe(name)
    await context.close()
  })
})
