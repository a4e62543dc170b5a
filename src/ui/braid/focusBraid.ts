/** Puts the focus back where the keys are at home; nothing where no braid is shown. */
export function focusBraid(): void {
  document.querySelector<HTMLElement>('[data-braid] [role="application"]')?.focus({
    preventScroll: true,
  })
}
