import type { Page } from 'playwright-core'

/** What an instructor brings in her notebook: 32 counts, five layers, all that is hard to write. */
export const NOTEBOOK = `sway 1
title   New combination
family  general
tempo   96
lead    R
start   weight L, arms low, facing 0
pickup  1
move    lamp "Lamp" feet steps counts 2 sided side claims feet to on-R pattern "1 step R side; 1& close L; 2 step R side"

phrase A 8
  feet   <8 kick; 1 step side; 2 step cross-behind; 3 step side; 4 touch together;
         5 step side; 5& close; 6 step side; 7 close; 8 step in-place; 8a touch together
  hips   1-6 pelvic undulation; 7 hip drop as "plop"
  torso  7 chest pop
  arms   1-4 both high v; 5 both low v
  head   4 look L; 5 look front
phrase B 8
  feet   1-8 lamp
  hips   1-8 hip-bump
  torso  1-8 shoulder shimmy
  arms   1 both crown
  head   1 look R
order  A A B B`

/** The feet of its first phrase, as they are named to a screen reader. */
export const NOTEBOOK_FEET = [
  'kick R forward, feet',
  'step R side, feet',
  'step L cross-behind, feet',
  'step R side, feet',
  'touch L together, feet',
  'step L side, feet',
  'close R, feet',
  'step L side, feet',
  'close R, feet',
  'step L in-place, feet',
  'touch R together, feet',
]

/** A new combination, with the keys in its braid. */
export async function startNew(page: Page) {
  await page.getByRole('button', { name: 'New combination' }).click()
  await page.getByRole('application').waitFor()
  await page.getByRole('application').focus()
}
