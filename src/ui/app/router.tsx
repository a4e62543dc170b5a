import { createBrowserRouter } from 'react-router'
import { CombinationsScreen } from '../combinations/CombinationsScreen'
import { Lost } from './Lost'
import { Shell } from './Shell'

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <CombinationsScreen /> },
      {
        path: 'combination/:id',
        lazy: async () => ({ Component: (await import('../studio/StudioScreen')).StudioScreen }),
      },
      {
        path: 'combination/:id/teach',
        lazy: async () => ({ Component: (await import('../teach/TeachScreen')).TeachScreen }),
      },
      {
        path: 'moves',
        lazy: async () => ({ Component: (await import('../moves/MovesScreen')).MovesScreen }),
      },
      { path: '*', element: <Lost /> },
    ],
    hydrateFallbackElement: <p className="only-read">Opening…</p>,
  },
])
