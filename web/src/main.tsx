import './styles/index.css'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { makeRouter } from './app/router.tsx'
import { listenToChanges } from './log/changes.ts'
import { noteDelivered } from './log/log-cache.ts'
import { startOutbox } from './log/outbox.ts'

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, networkMode: 'always' } } })
startOutbox((entries) => noteDelivered(client, entries))
listenToChanges(client)

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
