import { createBrowserRouter } from 'react-router'
import { SetupsPage } from '../pages/setups-page.tsx'
import { Lost, Sorry } from './lost.tsx'
import { Shell } from './shell.tsx'

/** Every view and its address. The list of setups is in the first load; each other view loads when it is opened. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Sorry />,
    hydrateFallbackElement: <p className="p-8">Opening…</p>,
    children: [
      { index: true, element: <SetupsPage /> },
      {
        path: 'setups/:id',
        lazy: async () => ({ Component: (await import('../pages/setup-page.tsx')).SetupPage }),
        children: [
          {
            path: 'zero',
            lazy: async () => ({ Component: (await import('../zero/zero-step.tsx')).ZeroStep }),
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
        path: 'profiles/:id?',
        lazy: async () => ({ Component: (await import('../pages/profiles-page.tsx')).ProfilesPage }),
      },
      { path: '*', element: <Lost says="There is no page at this address." /> },
    ],
  },
])
