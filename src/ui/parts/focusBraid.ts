/** Puts the focus back where the keys are at home; nothing where no braid is shown. */
export function focusBraid(): void {
  document.querySelector<HTMLElement>('[data-braid] [role="application"]')?.focus({
    preventScroll: true,
  })
}

/** What has the focus as a menu goes: something in it, or what opened it. */
const LEFT = '[role="menu"], [role="dialog"], [aria-haspopup][aria-expanded="false"]'

/**
 * Puts it back when a menu or a small window has gone: not where what was picked there has
 * opened a dialog, nor where something else was clicked.
 */
export function focusBraidAfter(): void {
  const at = document.activeElement
  const isFree = !at || at === document.body || at.closest(LEFT)
  if (isFree && !document.querySelector('[aria-modal="true"]')) focusBraid()
}
