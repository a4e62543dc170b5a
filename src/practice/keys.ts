/** What keys do, wherever nothing is typed; what has the focus keeps the space bar. */
export function onKeys(keys: Readonly<Record<string, () => void>>): void {
  document.addEventListener('keydown', (event) => {
    const { target, key } = event
    const run = keys[key]
    if (!run || event.altKey || event.ctrlKey || event.metaKey) return
    const isField =
      target instanceof HTMLInputElement ||
      target instanceof HTMLSelectElement ||
      target instanceof HTMLTextAreaElement
    // A button or a fold that has the focus is pressed by the space bar.
    const isPressed =
      key === ' ' &&
      target instanceof HTMLElement &&
      target !== document.body &&
      target.tagName !== 'H2'
    if (isField || isPressed) return
    event.preventDefault()
    run()
  })
}
