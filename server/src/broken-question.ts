import { STATUS_CODES } from 'node:http'
import type { Socket } from 'node:net'
import { Problem } from './problem.ts'

/** What is wrong with bytes that make no question, by the code that Node gives it. */
function problemOf(code: string | undefined): Problem {
  if (code === 'ERR_HTTP_REQUEST_TIMEOUT')
    return new Problem(
      408,
      'too-long',
      'The rest of the question did not come in time. What you entered is kept on this tablet.',
    )
  if (code === 'HPE_HEADER_OVERFLOW')
    return new Problem(431, 'too-large', 'The head of the question is too large.')
  return new Problem(400, 'not-understood', 'This is no question by HTTP.')
}

/** Answers what breaks off, or is no question at all, in the one shape of a refusal, and ends the connection. */
export function answerBroken(error: NodeJS.ErrnoException, socket: Socket): void {
  if (error.code === 'ECONNRESET' || !socket.writable) {
    socket.destroy()
    return
  }
  const problem = problemOf(error.code)
  const body = JSON.stringify(problem.body())
  socket.end(
    `HTTP/1.1 ${problem.status} ${STATUS_CODES[problem.status]}\r\nContent-Type: application/json; charset=utf-8\r\nContent-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
  )
}
