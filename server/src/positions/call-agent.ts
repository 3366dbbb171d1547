import { get as getPlain, type IncomingMessage } from 'node:http'
import { get as getSecure } from 'node:https'
import { Problem } from '../problem.ts'
import { guardedLookup, NotCalled, whyNotCalled } from './may-call.ts'

/** How long an agent has to answer, and how much it may say. */
export const PATIENCE_MS = 3000
const MOST_BYTES = 2 * 1024 * 1024

async function bodyOf(response: IncomingMessage): Promise<string> {
  const pieces: Buffer[] = []
  let length = 0
  for await (const piece of response as AsyncIterable<Buffer>) {
    length += piece.length
    if (length > MOST_BYTES)
      throw new Problem(502, 'agent-too-long', 'The agent answers with more than 2 MB.')
    pieces.push(piece)
  }
  return Buffer.concat(pieces).toString('utf8')
}

/** What went wrong in a call, for the person at the tablet. Nothing of what the address answered is told. */
function asProblem(error: unknown, url: URL): Problem {
  if (error instanceof Problem) return error
  if (error instanceof NotCalled)
    return new Problem(403, 'agent-not-called', `The server does not call this address: ${error.message}`)
  const { name, code } = error as NodeJS.ErrnoException
  if (name === 'AbortError' || name === 'TimeoutError' || code === 'ABORT_ERR')
    return new Problem(
      504,
      'agent-slow',
      `${url.host} did not answer within ${PATIENCE_MS / 1000} s. Read the position off the control and type it.`,
    )
  return new Problem(
    502,
    'agent-away',
    `${url.host} cannot be reached${code ? ` (${code})` : ''}. Is the machine's agent running, and the network up? Type the position meanwhile.`,
  )
}

/**
 * Gets a document of an agent: only from the shop's own network or an address that was allowed by name, without following a
 * redirect, within a time and a length.
 */
export async function callAgent(
  address: string,
  path: 'probe' | 'current',
  allowed: ReadonlySet<string>,
): Promise<string> {
  const url = new URL(`${address.replace(/\/+$/, '')}/${path}`)
  const refused = whyNotCalled(url, allowed)
  if (refused) throw new Problem(403, 'agent-not-called', `The server does not call this address: ${refused}`)
  const get = url.protocol === 'https:' ? getSecure : getPlain
  try {
    const response = await new Promise<IncomingMessage>((answered, failed) => {
      get(
        url,
        {
          headers: { accept: 'text/xml, application/xml' },
          signal: AbortSignal.timeout(PATIENCE_MS),
          ...(allowed.has(url.host) ? {} : { lookup: guardedLookup }),
        },
        answered,
      ).once('error', failed)
    })
    if (response.statusCode !== 200) {
      response.destroy()
      throw new Problem(
        502,
        'agent-refuses',
        `${url.host} answers with ${response.statusCode} to /${path}. Check the address: it is what stands before /${path}.`,
      )
    }
    return await bodyOf(response)
  } catch (error) {
    throw asProblem(error, url)
  }
}
