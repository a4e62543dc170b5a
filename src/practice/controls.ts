import { LAYERS, type Layer } from '../core/body/layers'
import { type Side, sideWord } from '../core/body/side'
import { layerWord } from '../core/moves/vocabulary'
import type { View } from '../core/pose/views'
import { element } from '../page/element'
import { PAGE_VIEWS, viewName } from '../page/figure'
import type { Heard } from './sound'

export const LEAST_PERCENT = 50
const MOST_PERCENT = 110
const STEP = 5

/** What a student has chosen of how it is danced and shown. */
export interface Chosen {
  readonly percent: number
  readonly side: Side
  readonly view: View
  /** The one layer that is shown alone. */
  readonly only: Layer | undefined
  readonly isLoop: boolean
}

/** Speed, side, view and what is heard, folded away until they are wanted. */
export function controls(
  { percent, side, view, only, isLoop }: Chosen,
  heard: Heard,
  { layers, hasVoice }: { readonly layers: readonly Layer[]; readonly hasVoice: boolean },
  {
    choose,
    hear,
  }: {
    readonly choose: (chosen: Partial<Chosen>) => void
    readonly hear: (heard: Partial<Heard>) => void
  },
): HTMLElement {
  const pick = (
    label: string,
    options: readonly (readonly [string, string])[],
    value: string,
    does: (value: string) => void,
  ) => {
    const select = element(
      'select',
      { 'aria-label': label },
      ...options.map(([key, text]) =>
        element('option', { value: key, selected: key === value }, text),
      ),
    )
    select.addEventListener('change', () => does(select.value))
    return element('label', {}, label, select)
  }
  const tick = (label: string, value: boolean, does: (value: boolean) => void) => {
    const box = element('input', { type: 'checkbox', checked: value })
    box.addEventListener('change', () => does(box.checked))
    return element('label', { class: 'tick' }, box, label)
  }
  const percents = Array.from(
    { length: (MOST_PERCENT - LEAST_PERCENT) / STEP + 1 },
    (_, i) => LEAST_PERCENT + i * STEP,
  )
  return element(
    'details',
    {},
    element('summary', {}, 'Speed, view'),
    element(
      'div',
      { class: 'picks' },
      pick(
        'Speed',
        [...new Set([...percents, percent])]
          .sort((a, b) => a - b)
          .map((one) => [String(one), `${one} %`]),
        String(percent),
        (value) => choose({ percent: Number(value) }),
      ),
      pick(
        'Side',
        (['R', 'L'] as const).map((one) => [one, sideWord[one]]),
        side,
        (value) => choose({ side: value === 'L' ? 'L' : 'R' }),
      ),
      pick(
        'View',
        PAGE_VIEWS.map((one) => [one, viewName(one)]),
        view,
        (value) => choose({ view: PAGE_VIEWS.find((one) => one === value) ?? 'mirror' }),
      ),
      pick(
        'Shown',
        [
          ['', 'all of it'],
          ...layers.map((layer) => [layer, `${layerWord[layer].toLowerCase()} alone`] as const),
        ],
        only ?? '',
        (value) => choose({ only: LAYERS.find((layer) => layer === value) }),
      ),
      tick('Counts', heard.counts, (counts) => hear({ counts })),
      tick('Rhythm', heard.rhythm, (rhythm) => hear({ rhythm })),
      hasVoice && tick('Voice', heard.voice, (voice) => hear({ voice })),
      tick('Again and again', isLoop, (now) => choose({ isLoop: now })),
      element(
        'p',
        { class: 'keys' },
        'Keys: space plays and stops, J goes eight counts back, the arrows walk.',
      ),
    ),
  )
}
