// First of all: what comes after it reads the policy as it is loaded.
import { nonce } from './policy'
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
import { followHouse } from '../stores/house'
import { followOwnWords } from '../stores/words'
import { router } from './router'
import { createServices, readDemo, ServicesProvider } from './services'
import { resolver, theme } from './theme'

const services = createServices()
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: false, staleTime: Number.POSITIVE_INFINITY, networkMode: 'always' },
  },
})

async function start(root: HTMLElement) {
  try {
    await followOwnWords(services.own)
    await followHouse(services.house)
    await services.combinations.addDemoOnce(readDemo)
    await services.journal.recover(services.combinations)
  } catch (cause) {
    throw new UserError(
      'This browser does not let the app keep anything.',
      'Leave private browsing, or allow storage for this address, and load the page again.',
      { cause },
    )
  }
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

const root = document.getElementById('root')
if (!root) throw new Error('the page has no root')
start(root).catch((error: unknown) => {
  root.textContent =
    error instanceof UserError
      ? `${error.message} ${error.whatToDo}`
      : `Something went wrong: ${String(error)}`
})
