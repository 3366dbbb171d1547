import { demoEntries, demoReference } from '@dogleg/core/demo'
import { deriveReady, deriveSetup, deriveTools, type Entry, isUnreadable } from '@dogleg/core/setup'
import { travelerOf } from '@dogleg/core/traveler'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { vi } from 'vitest'
import type { OpenSetup } from '../log/open-setup.ts'

/** The time that the demo's history is computed back from. */
const NOW = Date.UTC(2026, 10, 24, 9, 30)

const entries = demoEntries(NOW, () => 0.5)

/** The log of a setup of the demo, by its title. */
export function logOf(title: RegExp): Entry[] {
  const opened = entries.find((entry) => entry.kind === 'opened' && title.test(entry.title))
  if (!opened) throw new Error(`the demo has no setup ${title}`)
  return entries.filter(({ setup }) => setup === opened.id)
}

/** What the views of a setup work on. */
export function openSetup(log: readonly Entry[]): OpenSetup {
  const setup = deriveSetup(log, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const { machine } = setup
  const reference = demoReference
  const ready = deriveReady({ machine, entries: log, now: NOW })
  const lengths = deriveTools(log, machine, setup.unit)
  return {
    setup,
    entries: log,
    reference,
    ready,
    machineEntries: log,
    lengths,
    traveler: travelerOf(setup, { ready, lengths, reference }),
  }
}

/** Everything a view needs round it; questions are not asked twice. */
export function Round({ children }: { children: ReactNode }) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } })
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>
}

/** Shows a part of a setup as its page does, at an address. */
export function renderInSetup(
  part: ReactNode,
  log: readonly Entry[],
  at: { search?: string; state?: unknown } = {},
) {
  const router = createMemoryRouter(
    [{ element: <Outlet context={openSetup(log)} />, children: [{ path: '*', element: part }] }],
    { initialEntries: [{ pathname: '/here', ...at }] },
  )
  return render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
}

type Answer = unknown | ((body: unknown, path: string) => unknown)

/** A server that answers by path, and what it was asked. What it does not know is not found, as there. */
export function fakeServer(answers: Record<string, Answer>) {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (path: string, { method, body }: { method: string; body?: string }) => {
    asked.push(`${method} ${path}`)
    const answer = answers[`${method} ${path.split('?')[0]}`]
    const said =
      typeof answer === 'function' ? answer(body === undefined ? undefined : JSON.parse(body), path) : answer
    if (said instanceof Response) return said
    return said === undefined
      ? new Response(JSON.stringify({ error: { code: 'not-found', says: 'There is nothing here.' } }), {
          status: 404,
        })
      : new Response(JSON.stringify(said), { status: 200 })
  })
  return asked
}

/** Workers of the page, made up: each does what it is told to when it is asked. */
export class FakeWorker extends EventTarget {
  static made: FakeWorker[] = []
  onerror: ((event: Event) => void) | null = null
  terminated = false
  constructor() {
    super()
    FakeWorker.made.push(this)
  }
  postMessage() {}
  /** It ends by itself: broken, or as one whose script does not come. */
  end(how: 'broke' | 'not-here' = 'broke') {
    this.onerror?.(how === 'broke' ? new ErrorEvent('error') : new Event('error'))
  }
  terminate() {
    this.terminated = true
  }
}
