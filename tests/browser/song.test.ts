import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { play } from '../pieces/song'
import { wav } from '../pieces/wav'
import { type App, bytesOf, expectAccessible, fill, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** A minute or so, with true counts to hold what is heard against. */
const piece = play('tune', 'drum4', { seed: 9301, counts: 72 })
const tempo = Math.round((60 * 71) / ((piece.beats.at(-1) ?? 0) - (piece.beats[0] ?? 0)))
const tune = wav(piece.samples, piece.rate)

const folder = mkdtempSync(join(tmpdir(), 'sway-songs-'))
const fileNamed = (name: string, bytes: Uint8Array | string) => {
  const path = join(folder, name)
  writeFileSync(path, bytes)
  return path
}

const toSongs = (page: Page) => page.getByRole('link', { name: 'Songs', exact: true }).click()
const open = (page: Page, ...paths: string[]) => page.getByLabel('Open songs').setInputFiles(paths)
const cells = (page: Page) => page.getByRole('gridcell')
const labels = (page: Page) =>
  cells(page).evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? ''))
const selectedCount = (page: Page) => page.locator('[role="gridcell"][aria-selected="true"]')
const shownTempo = (page: Page) =>
  page
    .getByRole('region', { name: 'Play' })
    .locator('span')
    .evaluateAll((all) => all.map((one) => Number(one.textContent)).find((value) => value > 20))

describe('a song', () => {
  it('is opened, heard, put right by taps and by hand, named, and opened again as it was', async () => {
    const { page, errors, outside } = await app.visit()
    await toSongs(page)
    await page.getByText('Open a song you dance to. It stays in this browser.').waitFor()
    await open(page, fileNamed('07 - Made_up tune.wav', tune))
    await page.waitForURL(/song\//)
    expect(await page.getByLabel('Name of the song').inputValue()).toBe('Made up tune')
    const found = await cells(page).count()
    expect(Math.abs(found - 72)).toBeLessThan(4)
    expect(Math.abs(((await shownTempo(page)) ?? 0) - tempo)).toBeLessThan(4)

    // Tapped at half its pace, from the second count on, by the clock that is heard.
    await page.getByRole('grid').focus()
    await page.keyboard.press('t')
    await page.getByRole('button', { name: 'Stop', exact: true }).waitFor()
    const taps = await page.evaluate(async (gap) => {
      const { clock } = window as unknown as { clock: AudioContext }
      const from = clock.currentTime + 1
      let done = 0
      let missed = 0
      for (let i = 0; done < 9 && i < 30; i++) {
        const due = from + 2 * i * gap
        while (clock.currentTime < due) await new Promise((next) => setTimeout(next, 4))
        // Who was held up lets a beat go by; after two of them it is a new try.
        if (clock.currentTime > due + 0.06) {
          missed++
          continue
        }
        done = missed > 1 ? 1 : done + 1
        missed = 0
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 't', bubbles: true }))
      }
      return done
    }, 60 / tempo)
    expect(taps).toBe(9)
    await page.getByText(/^\d+ taps: stop tapping/).waitFor()
    await expect.poll(async () => Math.abs((await cells(page).count()) - found / 2)).toBeLessThan(4)
    const tapped = await cells(page).count()
    await page.keyboard.press('[')
    await expect.poll(() => cells(page).count()).toBe(2 * tapped - 1)
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    await expect.poll(() => cells(page).count()).toBe(found)

    // This is 1, all that follows is counted from there; and back.
    const before = await labels(page)
    for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('1')
    await expect
      .poll(async () => (await selectedCount(page).getAttribute('aria-label')) ?? '')
      .toMatch(/·1/)
    expect(await labels(page)).not.toEqual(before)
    await page.keyboard.press('Alt+ArrowRight')
    await expect
      .poll(async () => (await selectedCount(page).getAttribute('aria-label')) ?? '')
      .toMatch(/set by hand/)

    // A section is begun there, named, and what it is like is said.
    await page.getByRole('button', { name: 'New from here' }).click()
    await page.getByLabel('What it is').selectOption('slow')
    await fill(page, 'Name', 'The long wait')
    await page.getByLabel('Energy, 1 to 5').fill('2')
    await fill(page, 'Your word here', 'breathe')
    await page.getByRole('button', { name: 'Stop here' }).click()
    await page.getByText('saved', { exact: true }).waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Evening colours' }).click()
    await expectAccessible(page)
    const made = await labels(page)
    expect(
      made.filter((one) => one.includes('breathe') && one.includes('playing stops')),
    ).toHaveLength(1)

    await page.reload()
    await page.getByRole('button', { name: 'The long wait' }).waitFor()
    expect(await labels(page)).toEqual(made)
    // It is heard slower too, from what was kept.
    const slider = page.getByRole('slider', { name: 'Speed' })
    await slider.focus()
    for (let i = 0; i < 6; i++) await slider.press('ArrowLeft')
    await page.getByText('70 % of its speed').waitFor()
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    const now = page.locator('[data-now]')
    await expect.poll(() => now.textContent()).toMatch(/·/)
    const first = await now.textContent()
    await expect.poll(() => now.textContent()).not.toBe(first)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    // At a stop it waits, and goes on one phrase earlier.
    const stop = made.findIndex((one) => one.includes('playing stops'))
    await cells(page)
      .nth(stop - 3)
      .click()
    await page.keyboard.press(' ')
    await page.getByRole('button', { name: 'Stop', exact: true }).waitFor()
    await page.getByRole('button', { name: 'Play', exact: true }).waitFor()
    await expect.poll(() => selectedCount(page).getAttribute('data-at')).toBe(String(stop - 8))

    await toSongs(page)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Delete Made up tune' }).click()
    await page.getByText('Open a song you dance to.').waitFor()
    await page.getByRole('button', { name: 'Bring it back' }).click()
    await page.getByRole('link', { name: /Made up tune/ }).waitFor()
    expect(errors).toEqual([])
    expect(outside).toEqual([])
  })

  it('has combinations laid on it, put right by one touch, danced slower by the figure, kept', async () => {
    const { page, errors } = await app.visit()
    await toSongs(page)
    await open(page, fileNamed('Made up tune.wav', tune))
    await page.waitForURL(/song\//)
    // It is to stop a phrase after its chorus has begun.
    await page.getByRole('button', { name: 'Chorus', exact: true }).first().click()
    await page.keyboard.press('PageDown')
    await page.getByRole('button', { name: 'Stop here' }).click()
    await page.getByText('saved', { exact: true }).waitFor()
    await toSongs(page)
    await page.getByRole('button', { name: 'New routine' }).click()
    await page.waitForURL(/routine\//)
    const shelf = page.getByRole('region', { name: 'Combinations to lay' })
    const grid = page.getByRole('grid')
    const sums = page.getByText(/counts danced/)
    await shelf.getByRole('button', { name: /Copper Lantern/ }).click()
    await expect.poll(() => sums.textContent()).not.toMatch(/^0 counts danced/)
    await shelf.getByText('L side').click()
    await shelf.getByRole('button', { name: /Long Swell/ }).click()
    await expect.poll(() => sums.textContent()).toMatch(/L [1-9]/)
    const laid = await labels(page)
    expect(laid.some((one) => one.endsWith('Copper Lantern, R'))).toBe(true)
    expect(laid.some((one) => one.endsWith('Long Swell, L'))).toBe(true)

    // What is left is a pause, at one touch; and back.
    const facts = page.getByRole('region', { name: 'Worth a look' })
    await facts
      .getByRole('button', { name: /are left|goes on for/ })
      .first()
      .click()
    const before = await sums.textContent()
    await facts.getByRole('button', { name: /^Hold a pose for/ }).click()
    await expect.poll(() => sums.textContent()).not.toBe(before)
    expect((await labels(page)).some((one) => one.endsWith('Pose'))).toBe(true)
    await page.keyboard.press('Control+z')
    await expect.poll(() => sums.textContent()).toBe(before)
    await page.keyboard.press('Control+y')
    await expect.poll(() => sums.textContent()).not.toBe(before)
    // All of it is proposed anew with two that are ticked, and one proposal taken.
    await page.keyboard.press('Control+z')
    await expect.poll(() => sums.textContent()).toBe(before)
    for (const name of ['Copper Lantern', 'Saffron Steps'])
      await shelf.getByLabel(`Propose with ${name}`).check()
    await shelf.getByRole('button', { name: 'Propose with those ticked' }).click()
    await shelf.getByRole('button', { name: /Proposal 1 all covered/ }).click()
    await expect.poll(() => sums.textContent()).toMatch(/ 0 left/)
    await page.getByText('saved', { exact: true }).waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Evening colours' }).click()
    await expectAccessible(page)
    // From its other side a piece does not follow: it is led over here only, and undone as one.
    await grid.focus()
    const slip = facts.getByRole('button', { name: /already stand|is in the air/ }).first()
    for (let i = 0; i < 12 && (await slip.count()) === 0; i++) {
      await page.keyboard.press('ArrowDown')
      const was = await sums.textContent()
      await page.keyboard.press('s')
      const isTurned = (await sums.textContent()) !== was
      await page.waitForTimeout(500)
      if (isTurned && (await slip.count()) === 0) await page.keyboard.press('Control+z')
    }
    await slip.click()
    const here = facts.getByRole('button', { name: /^Here only, at / }).first()
    await here.click()
    await page.getByText(/kept among the combinations as/).waitFor()
    await slip.waitFor({ state: 'detached' })
    await page.keyboard.press('Control+z')
    await slip.waitFor()
    await facts.getByRole('button', { name: 'Ignore it' }).click()
    await facts.getByText('Ignored: 1').click()
    await facts.getByRole('button', { name: 'Show it again' }).click()
    await slip.waitFor()
    await page.getByText('saved', { exact: true }).waitFor()
    // What it comes to, by section and combination.
    await sums.click()
    const whole = page.getByRole('dialog', { name: 'Totals' })
    await whole
      .getByRole('row', { name: /Copper Lantern|Saffron Steps/ })
      .first()
      .waitFor()
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Takes', exact: true }).click()
    await page.getByRole('button', { name: 'Film a take' }).waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Takes', exact: true }).click()
    // The cue sheet is saved, and one page of paper.
    await page.getByRole('button', { name: 'Cue sheet' }).click()
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: /CSV/ }).click(),
    ])
    const csv = (await bytesOf(saved)).toString()
    expect(csv).toMatch(/time,place,count/)
    expect(csv).toMatch(/Copper Lantern|Saffron Steps/)
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
    expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
    const kept = await labels(page)
    await page.reload()
    await grid.waitFor()
    expect(await labels(page)).toEqual(kept)

    // Another routine leads over to this one, in one run through.
    const first = page.url()
    await toSongs(page)
    await page.getByRole('button', { name: 'New routine' }).click()
    await page.waitForURL((url) => /routine\//.test(url.href) && url.href !== first)
    await page.getByLabel('Then', { exact: true }).selectOption({ index: 1 })
    await page.getByLabel('after seconds').fill('40')
    await page.getByText('saved', { exact: true }).waitFor()
    await expectAccessible(page)
    await grid.focus()
    for (let i = 0; i < 12; i++) await page.keyboard.press('PageDown')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await page.getByText(/^Then Made up tune, in \d+ s$/).waitFor()
    await page.getByRole('button', { name: 'Begin now' }).click()
    await page.waitForURL(first)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()

    // Danced at 70 %: the figure goes with the song.
    const slider = page.getByRole('slider', { name: 'Speed' })
    await slider.focus()
    for (let i = 0; i < 6; i++) await slider.press('ArrowLeft')
    await page.getByText('70 % of its speed').waitFor()
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    const now = page.locator('[data-now]')
    await expect.poll(() => now.textContent()).toMatch(/·/)
    const figure = page.getByRole('region', { name: 'Dancing figure' })
    const seen = new Set<string>()
    for (let i = 0; i < 8; i++) {
      seen.add(
        await figure
          .locator('svg, canvas')
          .first()
          .evaluate((one) => one.outerHTML),
      )
      await page.waitForTimeout(300)
    }
    expect(seen.size).toBeGreaterThan(3)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()

    // In a class it is danced slower first, then as it is; a key makes it faster.
    await page.getByRole('link', { name: 'Plans', exact: true }).click()
    await page
      .getByRole('link', { name: /Tuesday/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Dance to a song' }).click()
    await page.getByRole('menuitem', { name: 'All of it' }).click()
    const rows = page.locator('[data-drill="song"]')
    await expect.poll(() => rows.count()).toBe(3)
    await expect.poll(() => page.getByText('60 min of 60 min').count()).toBe(1)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Begin class' }).click()
    await page.getByRole('button', { name: /^Begin Hello/ }).waitFor()
    const heading = page.getByRole('heading', { level: 1 })
    for (let i = 0; i < 80 && !/80 %/.test((await heading.textContent()) ?? ''); i++)
      await page.keyboard.press('End')
    await page.keyboard.press('PageDown')
    const place = page.locator('[data-place]')
    await expect.poll(() => place.textContent()).toMatch(/ 1·\d/)
    await page.keyboard.press('ArrowUp')
    await expect.poll(() => heading.textContent()).toMatch(/85 %/)
    await expect.poll(() => place.textContent()).toMatch(/ 1·[3-8]/)
    expect(await page.getByText(/clicks only/).count()).toBe(0)
    // From the chorus at once, by a touch; a key goes on to the part behind it.
    await page.getByRole('button', { name: 'Chorus', exact: true }).click()
    await expect.poll(() => place.textContent()).toMatch(/^Chorus 1·/)
    // Slower than it is, it waits at the stop, and goes on a phrase earlier.
    await page.getByText('It goes on a phrase earlier.').waitFor()
    const waits = page.getByRole('button', { name: 'waits at stops' })
    expect(await waits.getAttribute('aria-pressed')).toBe('true')
    await page.getByRole('button', { name: 'Go on', exact: true }).click()
    await expect.poll(() => place.textContent()).toMatch(/^Chorus 1·[1-8]/)
    await expect.poll(() => place.textContent()).toMatch(/^Chorus 2·/)
    await page.keyboard.press('p')
    await expect.poll(() => place.textContent()).toMatch(/^(?!Chorus 1)\S.* 1·/)
    await page.reload()
    await heading.getByText(/85 %/).waitFor()
    expect(errors).toEqual([])
  })

  it('that can’t be opened says why in a sentence, and harms nothing', async () => {
    const { page, errors } = await app.visit()
    await toSongs(page)
    await page.getByText('Open a song you dance to.').waitFor()
    // A gigabyte that is made of one part again and again, dropped on the page.
    await page.evaluate(() => {
      const much = (parts: number, of: Blob) => new Blob(Array.from({ length: parts }, () => of))
      const huge = much(1000, new Blob([new Uint8Array(1_000_000).fill(7)]))
      const transfer = new DataTransfer()
      transfer.items.add(new File([huge], 'huge.mp3', { type: 'audio/mpeg' }))
      const drop = new DragEvent('drop', { bubbles: true, dataTransfer: transfer })
      document.querySelector('main')?.dispatchEvent(drop)
    })
    const refused = page.getByRole('alert').filter({ hasText: /huge.*not a sound or video file/ })
    await refused.getByRole('button', { name: 'Close' }).click()
    const quiet = new Float32Array(12 * 22_050)
    const cut = tune.subarray(0, Math.floor(tune.length / 2))
    for (const [path, why, isSong] of [
      [fileNamed('text.mp3', 'la la la'), /not a sound or video file/, false],
      [fileNamed('empty.wav', ''), /This file is empty/, false],
      [fileNamed('cut.wav', cut), /The file ends early, at 0:1\d/, true],
      [fileNamed('silence.wav', wav(quiet, 22_050)), /Nothing is heard in it/, true],
      [
        fileNamed('short.wav', wav(piece.samples.subarray(0, 3 * piece.rate), piece.rate)),
        /Too short to find a count/,
        true,
      ],
      [fileNamed('cut again.wav', cut), /You have this song already/, true],
    ] as const) {
      await open(page, path)
      const told = page.getByRole(isSong ? 'status' : 'alert').filter({ hasText: why })
      await told.waitFor()
      if (isSong) await told.getByRole('link', { name: 'Open it' }).waitFor()
      await told.getByRole('button', { name: 'Close' }).click()
    }
    await expect
      .poll(() =>
        page
          .getByRole('listitem')
          .filter({ hasText: /cut|silence|short/ })
          .count(),
      )
      .toBe(3)
    // What nobody has counted is tapped, and says so.
    await page.getByRole('link', { name: /silence/ }).click()
    await page.getByRole('button', { name: 'Count here again' }).waitFor()
    expect(errors).toEqual([])
  })

  it('is kept without its sound where the disk is full, which is then found again', async () => {
    const { page, context } = await app.visit()
    await context.addInitScript(() => {
      const { put } = IDBObjectStore.prototype
      IDBObjectStore.prototype.put = function (value, key) {
        if (this.name === 'media') throw new DOMException('no room', 'QuotaExceededError')
        return put.call(this, value, key)
      }
    })
    await page.reload()
    await toSongs(page)
    const path = fileNamed('Made up tune.wav', tune)
    await open(page, path)
    const told = page.getByRole('status').filter({ hasText: /must be opened again next time/ })
    await told.getByRole('link', { name: 'Open it' }).click()
    await cells(page).first().waitFor()
    const counts = await labels(page)
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    await page.reload()
    await page.getByText('The sound of this song is not kept here.').waitFor()
    expect(await labels(page)).toEqual(counts)
    const other = fileNamed('other.wav', wav(piece.samples.subarray(0, 200_000), 22_050))
    await page.getByLabel('Find the file').setInputFiles(other)
    await page.getByText(/another version: it is not as long/).waitFor()
    // Another copy begins a little later: its counts are the same, and go along.
    const late = new Float32Array(piece.samples.length + piece.rate / 5)
    late.set(piece.samples, piece.rate / 5)
    await page
      .getByLabel('Find the file')
      .setInputFiles(fileNamed('late.wav', wav(late, piece.rate)))
    await page.getByText(/another copy. It begins 0.20 s later; the counts are moved/).waitFor()
    await page.getByText('The sound of this song is not kept here.').waitFor({ state: 'detached' })
    expect(await labels(page)).toEqual(counts)
    await page.reload()
    await page.getByLabel('Find the file').setInputFiles(path)
    await page.getByText(/another copy. It begins 0.20 s earlier/).waitFor()
    await page.getByText('The sound of this song is not kept here.').waitFor({ state: 'detached' })
    // Its counts are saved as a file, and are there again in another browser, without the sound.
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save counts' }).click(),
    ])
    expect(saved.suggestedFilename()).toBe('made-up-tune.song.json')
    const counted = fileNamed('Elsewhere.song.json', (await bytesOf(saved)).toString())
    const { page: elsewhere } = await app.visit()
    await toSongs(elsewhere)
    await open(elsewhere, counted)
    await elsewhere.getByText('Its counts are here, its sound is not.').waitFor()
    await elsewhere
      .getByRole('link', { name: /Made up tune/ })
      .first()
      .click()
    await cells(elsewhere).first().waitFor()
    expect(await labels(elsewhere)).toEqual(counts)
  })
})
