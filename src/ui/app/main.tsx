// First of all: what comes after it reads the policy as it is loaded.
import { nonce } from '../parts/policy'
import '@fontsource/bricolage-grotesque/latin-800.css'
import '@fontsource/bricolage-grotesque/latin-ext-800.css'
import '@fontsource/figtree/latin-400.css'
import '@fontsource/figtree/latin-600.css'
import '@fontsource/figtree/latin-700.css'
import '@fontsource/figtree/latin-ext-400.css'
import '@fontsource/figtree/latin-ext-600.css'
import '@mantine/core/styles.css'
import './theme.css'
import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { UserError } from '../../core/errors'
import { inWords } from '../parts/Problem'
import { followHouse } from '../stores/house'
import { createServices, readDemo, ServicesProvider } from '../stores/services'
import { tell, watchForErrors } from '../stores/trouble'
import { followOwnWords } from '../stores/words'
import { router } from './router'
import { resolver, theme } from './theme'
import { beginInNewest, keepApp } from './version'

const services = createServices()
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: false, staleTime: Number.POSITIVE_INFINITY, networkMode: 'always' },
  },
})

/** Does what a start can do without. */
async function attempt(about: string, work: () => Promise<unknown>): Promise<void> {
  try {
    await work()
  } catch (cause) {
    tell(
      about,
      cause instanceof UserError
        ? cause
        : new UserError(
            'Some of what is kept in this browser could not be read or brought up to date.',
            'Nothing was thrown away. Make room on the disk and load the page again.',
            { cause },
          ),
    )
  }
}

/** Keeping the app for when there is no network waits so long for what the first screen loads. */
const KEEP_AFTER_MS = 1500

async function start(root: HTMLElement) {
  watchForErrors(window)
  if (await beginInNewest((text) => root.replaceChildren(text))) return
  await services.open(() =>
    say(root, {
      what: 'Another window has an older version of the app open.',
      toDo: 'Close it, or load it again. This one goes on by itself then.',
    }),
  )
  await attempt('words', () => followOwnWords(services.own))
  await attempt('house notes', () => services.house.recover())
  await attempt('rules', () => followHouse(services.house))
  await attempt('demo', () => services.combinations.addDemoOnce(readDemo))
  await attempt('journal', () => services.journal.recover(services.combinations))
  root.replaceChildren()
  // The first picture comes first.
  setTimeout(() => {
    // Where it can't be kept, it is there all the same.
    keepApp().catch(() => {})
  }, KEEP_AFTER_MS)
  createRoot(root).render(
    <StrictMode>
      <MantineProvider
        theme={theme}
        defaultColorScheme="auto"
        getStyleNonce={nonce}
        cssVariablesResolver={resolver}
      >
        <QueryClientProvider client={queries}>
          <ServicesProvider value={services}>
            <RouterProvider router={router} />
          </ServicesProvider>
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  )
}

/** Says something before there is a screen. */
function say(
  root: HTMLElement,
  { what, toDo }: { readonly what: string; readonly toDo: string },
  again?: () => void,
): void {
  const box = document.createElement('main')
  box.className = 'beforeAll'
  box.setAttribute('role', 'alert')
  const title = document.createElement('h1')
  title.textContent = what
  const text = document.createElement('p')
  text.textContent = toDo
  box.append(title, text)
  if (again) {
    const button = document.createElement('button')
    button.textContent = 'Try again'
    button.addEventListener('click', again)
    box.append(button)
  }
  root.replaceChildren(box)
}

const root = document.getElementById('root')
if (!root) throw new Error('the page has no root')
start(root).catch((error: unknown) => say(root, inWords(error), () => location.reload()))
