import { vi } from 'vitest'

/** A server where people sign in, as a tablet sees it: it may be away, and it says who is at the tablet. */
export function signingServer(pins: Record<string, string> = { RT: '2580', KM: '1973' }) {
  const may: Record<string, string> = { RT: 'lead', WALL: 'looker' }
  const server = {
    away: false,
    /** It answers, and can do nothing. */
    trouble: false,
    letIn: true,
    /** Sittings by their names, in order: whose, since when, and whether they are over. */
    sittings: [] as { by: string; since?: string | undefined; over: boolean }[],
    here: undefined as number | undefined,
    /** Entries that were taken, with the sitting of each. */
    taken: [] as { by: string; sitting: string; text: string }[],
    asked: [] as string[],
    session: () => ({
      signs: true,
      ...(server.letIn ? { tablet: { id: 't1', name: 'Mill 1', locksAfter: 15 } } : {}),
      ...(server.letIn && server.here !== undefined
        ? {
            sitting: `s${server.here}`,
            person: {
              initials: server.sittings[server.here]?.by ?? '',
              name: 'Somebody',
              may: may[server.sittings[server.here]?.by ?? ''] ?? 'operator',
            },
          }
        : {}),
    }),
  }
  const refuse = (status: number, code: string) =>
    new Response(JSON.stringify({ error: { code, says: `Said: ${code}.` } }), { status })
  const answer = (path: string, body: Record<string, unknown>): unknown => {
    if (path === '/api/session') return server.session()
    if (!server.letIn) return refuse(401, 'tablet-unknown')
    if (path === '/api/session/person') {
      if (server.trouble) return refuse(503, 'failed')
      const {
        by,
        pin,
        since,
        over = false,
      } = body as { by: string; pin: string; since?: string; over?: boolean }
      if (pins[by] !== pin) return refuse(401, 'wrong-pin')
      const n = server.sittings.push({ by, since, over }) - 1
      if (!over) server.here = n
      return { ...server.session(), signed: `s${n}` }
    }
    if (path === '/api/session/end') {
      if (body.sitting === undefined || body.sitting === `s${server.here}`) server.here = undefined
      return server.session()
    }
    if (path === '/api/entries') {
      const { entries, sittings } = body as { entries: { by: string; text: string }[]; sittings: string[] }
      for (const [n, { by }] of entries.entries())
        if (server.sittings[Number(sittings[n]?.slice(1))]?.by !== by) return refuse(401, 'not-signed')
      server.taken.push(...entries.map(({ by, text }, n) => ({ by, text, sitting: sittings[n] ?? '' })))
      return { added: entries.length, known: 0 }
    }
    if (server.here === undefined) return refuse(401, 'signed-out')
    return { stamp: 7 }
  }
  vi.stubGlobal('fetch', async (path: string, { method, body }: { method: string; body?: string }) => {
    if (server.away) throw new TypeError('Failed to fetch')
    server.asked.push(`${method} ${path}`)
    const said = answer(path.split('?')[0] ?? '', body === undefined ? {} : JSON.parse(body))
    return said instanceof Response ? said : new Response(JSON.stringify(said), { status: 200 })
  })
  return server
}
