import { createBrowserRouter } from 'react-router'
import { ShopPage } from '../pages/shop-page.tsx'
import { Lost, Sorry } from './lost.tsx'
import { Shell } from './shell.tsx'

/** Every view and its address. The shop is in the first load; each other view loads when it is opened. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Sorry />,
    hydrateFallbackElement: <p className="p-8">Opening…</p>,
    children: [
      { index: true, element: <ShopPage /> },
      {
        path: 'setups/:id',
        lazy: async () => ({ Component: (await import('../pages/setup-page.tsx')).SetupPage }),
        children: [
          {
            path: 'ready',
            lazy: async () => ({ Component: (await import('../ready/ready-step.tsx')).ReadyStep }),
          },
          {
            path: 'hold',
            lazy: async () => ({ Component: (await import('../hold/hold-step.tsx')).HoldStep }),
          },
          {
            path: 'zero',
            lazy: async () => ({ Component: (await import('../zero/zero-step.tsx')).ZeroStep }),
          },
          {
            path: 'angle',
            lazy: async () => ({ Component: (await import('../angle/angle-step.tsx')).AngleStep }),
          },
          {
            path: 'code',
            lazy: async () => ({ Component: (await import('../code/code-step.tsx')).CodeStep }),
          },
          {
            path: 'prove',
            lazy: async () => ({ Component: (await import('../prove/prove-step.tsx')).ProveStep }),
          },
          {
            path: 'run',
            lazy: async () => ({ Component: (await import('../run/run-step.tsx')).RunStep }),
          },
          {
            path: 'hand-over',
            lazy: async () => ({
              Component: (await import('../hand-over/hand-over-step.tsx')).HandOverStep,
            }),
          },
          {
            path: 'program',
            lazy: async () => ({ Component: (await import('../program/program-view.tsx')).ProgramView }),
          },
          {
            path: 'logbook',
            lazy: async () => ({ Component: (await import('../logbook/logbook-view.tsx')).LogbookView }),
          },
        ],
      },
      {
        path: 'machines/:id?',
        lazy: async () => ({ Component: (await import('../pages/machines-page.tsx')).MachinesPage }),
      },
      {
        path: 'machines/:id/simulated',
        lazy: async () => ({ Component: (await import('../pages/simulated-page.tsx')).SimulatedPage }),
      },
      {
        path: 'practice',
        lazy: async () => ({ Component: (await import('../pages/practice-page.tsx')).PracticePage }),
      },
      {
        path: 'practice/:exercise',
        lazy: async () => ({ Component: (await import('../pages/exercise-page.tsx')).ExercisePage }),
      },
      {
        path: 'vises/:id?',
        lazy: async () => ({ Component: (await import('../pages/vises-page.tsx')).VisesPage }),
      },
      {
        path: 'collets/:id?',
        lazy: async () => ({ Component: (await import('../pages/collets-page.tsx')).ColletsPage }),
      },
      {
        path: 'profiles/:id?',
        lazy: async () => ({ Component: (await import('../pages/profiles-page.tsx')).ProfilesPage }),
      },
      {
        path: 'tools/:id?',
        lazy: async () => ({ Component: (await import('../pages/tools-page.tsx')).ToolsPage }),
      },
      {
        path: 'materials/:id?',
        lazy: async () => ({ Component: (await import('../pages/materials-page.tsx')).MaterialsPage }),
      },
      { path: '*', element: <Lost says="There is no page at this address." /> },
    ],
  },
])
