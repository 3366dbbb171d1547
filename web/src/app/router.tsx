import { createBrowserRouter, type RouteObject } from 'react-router'
import { ShopPage } from '../pages/shop-page.tsx'
import { Failed, Lost, Sorry } from './lost.tsx'
import { Shell } from './shell.tsx'
import { view } from './view.tsx'

/** The steps and the other views of a setup. */
const inSetup = [
  view('ready', async () => (await import('../ready/ready-step.tsx')).ReadyStep),
  view('hold', async () => (await import('../hold/hold-step.tsx')).HoldStep),
  view('zero', async () => (await import('../zero/zero-step.tsx')).ZeroStep),
  view('angle', async () => (await import('../angle/angle-step.tsx')).AngleStep),
  view('code', async () => (await import('../code/code-step.tsx')).CodeStep),
  view('prove', async () => (await import('../prove/prove-step.tsx')).ProveStep),
  view('run', async () => (await import('../run/run-step.tsx')).RunStep),
  view('hand-over', async () => (await import('../hand-over/hand-over-step.tsx')).HandOverStep),
  view('program', async () => (await import('../program/program-view.tsx')).ProgramView),
  view('logbook', async () => (await import('../logbook/logbook-view.tsx')).LogbookView),
]

/** Every view and its address. The shop is in the first load; each other view loads when it is opened. */
export const routes: RouteObject[] = [
  {
    element: <Shell />,
    errorElement: <Sorry />,
    hydrateFallbackElement: <p className="p-8">Opening…</p>,
    children: [
      { index: true, element: <ShopPage />, errorElement: <Failed /> },
      view('setups/:id', async () => (await import('../pages/setup-page.tsx')).SetupPage, inSetup),
      view('machines/:id?', async () => (await import('../pages/machines-page.tsx')).MachinesPage),
      view('machines/:id/simulated', async () => (await import('../pages/simulated-page.tsx')).SimulatedPage),
      view(
        'machines/:id/setups',
        async () => (await import('../pages/older-setups-page.tsx')).OlderSetupsPage,
      ),
      view('jobs/:job', async () => (await import('../pages/job-page.tsx')).JobPage),
      view('begin', async () => (await import('../begin/begin-page.tsx')).BeginPage),
      view('begin/own', async () => (await import('../begin/own-shop-page.tsx')).OwnShopPage),
      view('search', async () => (await import('../pages/search-page.tsx')).SearchPage),
      view('this-shop', async () => (await import('../pages/this-shop-page.tsx')).ThisShopPage),
      view('wall', async () => (await import('../pages/wall-page.tsx')).WallPage),
      view('this-tablet', async () => (await import('../tablet/this-tablet-page.tsx')).ThisTabletPage),
      view('people', async () => (await import('../people/people-page.tsx')).PeoplePage),
      view('let-in', async () => (await import('../people/let-in-view.tsx')).LetInView),
      view('practice', async () => (await import('../pages/practice-page.tsx')).PracticePage),
      view('practice/:exercise', async () => (await import('../pages/exercise-page.tsx')).ExercisePage),
      view('vises/:id?', async () => (await import('../pages/vises-page.tsx')).VisesPage),
      view('collets/:id?', async () => (await import('../pages/collets-page.tsx')).ColletsPage),
      view('profiles/:id?', async () => (await import('../pages/profiles-page.tsx')).ProfilesPage),
      view('tools/:id?', async () => (await import('../pages/tools-page.tsx')).ToolsPage),
      view('materials/:id?', async () => (await import('../pages/materials-page.tsx')).MaterialsPage),
      { path: '*', element: <Lost says="There is no page at this address." /> },
    ],
  },
]

export const makeRouter = () => createBrowserRouter(routes)
