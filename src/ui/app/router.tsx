import { createBrowserRouter } from 'react-router'
import { CombinationsScreen } from '../combinations/CombinationsScreen'
import { FloorFrame, Frame } from './Frame'
import { Lost } from './Lost'
import { Shell } from './Shell'

/** The floor, and a lesson before the camera, have the whole window: nothing else is on it. */
const floor = [
  {
    path: 'class/:id',
    lazy: async () => ({ Component: (await import('../class/ClassScreen')).ClassScreen }),
  },
  {
    path: 'combination/:id/lesson',
    lazy: async () => ({ Component: (await import('../lesson/LessonScreen')).LessonScreen }),
  },
  {
    path: 'class/:id/dancers',
    lazy: async () => ({ Component: (await import('../class/DancersScreen')).DancersScreen }),
  },
].map((route) => ({
  ...route,
  errorElement: <Lost />,
  hydrateFallbackElement: <p className="only-read">Opening…</p>,
}))

export const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { element: <FloorFrame />, children: floor },
      {
        element: <Shell />,
        errorElement: <Lost />,
        children: [
          { index: true, element: <CombinationsScreen /> },
          {
            path: 'combination/:id',
            lazy: async () => ({
              Component: (await import('../studio/StudioScreen')).StudioScreen,
            }),
          },
          {
            path: 'combination/:id/teach',
            lazy: async () => ({ Component: (await import('../teach/TeachScreen')).TeachScreen }),
          },
          {
            path: 'page',
            lazy: async () => ({ Component: (await import('../notebook/PageScreen')).PageScreen }),
          },
          {
            path: 'moves',
            lazy: async () => ({ Component: (await import('../moves/MovesScreen')).MovesScreen }),
          },
          {
            path: 'plans',
            lazy: async () => ({ Component: (await import('../plan/PlansScreen')).PlansScreen }),
          },
          {
            path: 'series',
            lazy: async () => ({
              Component: (await import('../series/SeriesListScreen')).SeriesListScreen,
            }),
          },
          {
            path: 'series/:id',
            lazy: async () => ({
              Component: (await import('../series/SeriesScreen')).SeriesScreen,
            }),
          },
          {
            path: 'plan/:id',
            lazy: async () => ({ Component: (await import('../plan/PlanScreen')).PlanScreen }),
          },
          {
            path: 'songs',
            lazy: async () => ({ Component: (await import('../songs/SongsScreen')).SongsScreen }),
          },
          {
            path: 'song/:id',
            lazy: async () => ({ Component: (await import('../song/SongScreen')).SongScreen }),
          },
          {
            path: 'routine/:id',
            lazy: async () => ({
              Component: (await import('../routine/RoutineScreen')).RoutineScreen,
            }),
          },
          {
            path: 'diary',
            lazy: async () => ({ Component: (await import('../diary/DiaryScreen')).DiaryScreen }),
          },
          {
            path: 'house',
            lazy: async () => ({ Component: (await import('../house/HouseScreen')).HouseScreen }),
          },
          { path: '*', element: <Lost /> },
        ],
        hydrateFallbackElement: <p className="only-read">Opening…</p>,
      },
    ],
  },
])
