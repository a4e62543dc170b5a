type Child = Node | string | undefined | false

/** An element with what is in it; text only ever comes in as text. */
export function element<K extends keyof HTMLElementTagNameMap>(
  name: K,
  attributes: Readonly<Record<string, string | boolean | undefined>> = {},
  ...children: readonly Child[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(name)
  for (const [key, value] of Object.entries(attributes)) {
    if (value === undefined || value === false) continue
    made.setAttribute(key, value === true ? '' : value)
  }
  made.append(...children.filter((child): child is Node | string => Boolean(child)))
  return made
}

/** A button that does something. */
export function button(
  label: string,
  does: () => void,
  attributes: Readonly<Record<string, string | boolean | undefined>> = {},
): HTMLButtonElement {
  const made = element('button', { type: 'button', ...attributes }, label)
  made.addEventListener('click', does)
  return made
}
