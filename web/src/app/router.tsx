import { createBrowserRouter } from 'react-router'
import { LogbookView } from '../logbook/logbook-view.tsx'
import { SetupPage } from '../pages/setup-page.tsx'
import { SetupsPage } from '../pages/setups-page.tsx'
import { ProgramView } from '../program/program-view.tsx'
import { ZeroStep } from '../zero/zero-step.tsx'
import { Lost, Sorry } from './lost.tsx'
import { Shell } from './shell.tsx'

/** Every view and its address. The pages of the shop's own data load when they are opened. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Sorry />,
    children: [
      { index: true, element: <SetupsPage /> },
      {
        path: 'setups/:id',
        element: <SetupPage />,
        children: [
          { path: 'zero', element: <ZeroStep /> },
          { path: 'program', element: <ProgramView /> },
          { path: 'logbook', element: <LogbookView /> },
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
