import { stayAwake } from '../page/awake'
import { button, element } from '../page/element'
import { eachFrame } from '../page/frames'
import { finely } from '../page/now'
import { type Connection, follow, type Standing } from './connection'
import { Dance } from './dance'

/** Nobody needs to know of a line that is back at once. */
const LOST_MS = 2000
/** So long a hint is there. */
const HINT_MS = 12_000

const REFUSED: Readonly<Record<Extract<Standing, { kind: 'refused' }>['why'], string>> = {
  code: 'That is not the code. Look at the screen of the floor once more.',
  full: 'The room is full: 60 are following.',
  wait: 'Too many tries. Wait a minute, or scan the code on the wall.',
  old: 'This page is older than the floor. Load it again.',
}

/** The page of who follows: a code, then what is danced. */
export class FollowScreen {
  readonly #root: HTMLElement
  readonly #dance = new Dance()
  readonly #state = element('p', { class: 'state', role: 'status' })
  /** On a wall nobody touches anything. */
  readonly #isWall = new URLSearchParams(location.search).has('wall')
  #connection: Connection | undefined
  #isUp = false
  #danced = ''

  constructor(root: HTMLElement) {
    this.#root = root
    root.toggleAttribute('data-wall', this.#isWall)
    const key = location.hash.slice(1)
    if (key) this.#join(key)
    else this.#ask('')
    const again = () => {
      if (document.visibilityState !== 'visible' || !this.#connection) return
      this.#connection.again()
      // A browser lets go of the screen when the page is left.
      stayAwake()
    }
    document.addEventListener('visibilitychange', again)
    window.addEventListener('online', again)
    window.addEventListener('pageshow', again)
    document.addEventListener('resume', again)
    eachFrame(() => this.#frame())
  }

  /** The code, to be typed in. */
  #ask(problem: string): void {
    const code = element('input', {
      type: 'text',
      id: 'code',
      inputmode: 'numeric',
      autocomplete: 'one-time-code',
      pattern: '[0-9 ]*',
      maxlength: '9',
      required: true,
    })
    const form = element(
      'form',
      { class: 'join' },
      element('h1', {}, 'Follow the class'),
      element('label', { for: 'code' }, 'The six digits from the floor’s screen'),
      code,
      problem && element('p', { class: 'problem', role: 'alert' }, problem),
      element('button', { type: 'submit', class: 'main' }, 'Join'),
    )
    form.addEventListener('submit', (event) => {
      event.preventDefault()
      const digits = code.value.replace(/\D/g, '')
      if (digits.length === 6) this.#join(digits)
      else this.#ask('The code has six digits.')
    })
    this.#root.replaceChildren(element('main', {}, form))
    code.focus()
  }

  #join(code: string): void {
    this.#connection?.leave()
    const url = `ws://${location.host}/ws`
    this.#connection = follow({
      open: () => new WebSocket(url),
      code,
      clock: finely,
      chance: (crypto.getRandomValues(new Uint8Array(1))[0] ?? 0) / 255,
      changed: () => this.#changed(code),
    })
    this.#root.replaceChildren(this.#dance.element, this.#state, this.#buttons())
    stayAwake()
  }

  #changed(code: string): void {
    const connection = this.#connection
    if (!connection) return
    const standing = connection.standing()
    if (standing.kind === 'refused') {
      const isKey = code.length > 6
      const { why, seconds } = standing
      const text =
        why === 'code' && isKey
          ? 'That code is of another class. Scan the one on the wall once more, or type its six digits.'
          : why === 'wait' && seconds !== undefined && seconds < 60
            ? `Too many tries. Wait ${seconds} seconds, or scan the code on the wall.`
            : REFUSED[why]
      this.#connection = undefined
      this.#ask(text)
      return
    }
    this.#dance.show(connection.told())
    const danced = this.#dance.title
    if (danced === this.#danced) return
    this.#danced = danced
    // A raised hand is about what is danced.
    if (this.#isUp) this.#raise(false)
  }

  #raise(isUp: boolean): void {
    this.#isUp = isUp
    this.#connection?.hand(isUp)
    const hand = this.#root.querySelector('.hand')
    hand?.setAttribute('aria-pressed', String(isUp))
    if (hand) hand.textContent = isUp ? 'Hand is up' : 'Raise hand'
  }

  #buttons(): HTMLElement {
    if (this.#isWall) return element('footer', { hidden: true })
    // Only safe addresses may keep a screen on, and a room has none.
    const hint =
      'wakeLock' in navigator
        ? undefined
        : element('p', { class: 'hint' }, 'Set your screen to stay on.')
    setTimeout(() => hint?.remove(), HINT_MS)
    return element(
      'footer',
      {},
      hint,
      ...this.#dance.buttons(),
      button('Raise hand', () => this.#raise(!this.#isUp), {
        class: 'hand',
        'aria-pressed': 'false',
      }),
    )
  }

  #frame(): void {
    const connection = this.#connection
    if (!connection) return
    const standing = connection.standing()
    const isLost = standing.kind === 'lost' && finely() - standing.since > LOST_MS
    const text =
      standing.kind === 'over'
        ? 'Well danced.'
        : isLost
          ? 'Looking for the room…'
          : standing.kind === 'joining'
            ? 'Joining…'
            : ''
    if (this.#state.textContent !== text) this.#state.textContent = text
    this.#root.toggleAttribute('data-over', standing.kind === 'over')
    // What was danced last stands still until the room is found.
    if (!isLost) this.#dance.draw((isDanced) => connection.now(isDanced))
  }
}
