import './styles/index.css'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { makeRouter } from './app/router.tsx'
import { listenToChanges } from './log/changes.ts'
import { knownBefore, tidyKnown } from './log/known-before.ts'
import { noteDelivered } from './log/log-cache.ts'
import { operator } from './log/operator.ts'
import { startOutbox } from './log/outbox.ts'
import { askBoardAhead } from './log/use-board.ts'
import { keepGround } from './tablet/ground.ts'
import { whenIdle } from './ui/lazy-part.tsx'

const client = new QueryClient({
  // What the tablet knew before stands in where the server is away.
  defaultOptions: { queries: { retry: 1, networkMode: 'always', persister: knownBefore } },
})
keepGround()
startOutbox((entries) => noteDelivered(client, entries))
listenToChanges(client)
if (location.pathname === '/') void askBoardAhead(client, operator())

whenIdle(async () => {
  const { keepPage } = await import('./app/keep-page.ts')
  await Promise.all([keepPage(), tidyKnown()])
})

const router = makeRouter()
const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  )
