/** Whether something is scrolled up and down: the page itself, or a box that says so. */
const scrolls = (box: Element): boolean =>
  box === document.documentElement || /auto|scroll/.test(getComputedStyle(box).overflowY)

/** What scrolls round an element, and has something to scroll; none where all of it is seen. */
export function scrollerOf(inside: Element | null): Element | null {
  let box = inside
  while (box && !(box.scrollHeight > box.clientHeight && scrolls(box))) box = box.parentElement
  return box
}
