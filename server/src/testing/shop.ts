import type { Entry } from '@dogleg/core/setup'
import { afterEach } from 'vitest'
import { kill, type Started, type StartOptions, startServer } from './process.ts'

/** Servers that a test has started; those that it did not end are ended after it. */
export function servers() {
  const running = new Set<Started>()
  const end = async (server: Started) => {
    running.delete(server)
    await kill(server)
  }
  afterEach(() => Promise.all([...running].map(end)))
  return {
    start: async (file: string, options: StartOptions = {}) => {
      const server = await startServer(file, options)
      running.add(server)
      return server
    },
    /** At once, as a power cut would. */
    end,
    /** As Ctrl+C or the system would; resolves with its exit code, or with the signal that it fell to and all that it said. */
    stop: (server: Started): Promise<number | string> => {
      running.delete(server)
      const ended = new Promise<number | string>((resolve) =>
        server.child.once('exit', (code, signal) => resolve(code ?? `${signal}: ${server.output()}`)),
      )
      server.child.kill('SIGTERM')
      return ended
    },
  }
}

export const post = (address: string, entries: readonly Entry[], held?: number[]) =>
  fetch(`${address}/api/entries`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ entries, ...(held ? { held } : {}) }),
  })

/** What a tablet is told when it asks. */
export async function ask<T>(address: string, path: string): Promise<T> {
  const response = await fetch(`${address}${path}`)
  return (await response.json()) as T
}

/** The ids of a setup's entries that the server has. */
export async function stored(address: string, setup: string): Promise<Set<string>> {
  const { entries } = await ask<{ entries?: Entry[] }>(address, `/api/setups/${setup}/entries`)
  return new Set((entries ?? []).map(({ id }) => id))
}

/** The refusal that an answer carries. */
export async function refusalOf(response: Response): Promise<{ status: number; code: string; says: string }> {
  const { error } = (await response.json()) as { error: { code: string; says: string } }
  return { status: response.status, ...error }
}
