import type { IncomingMessage } from 'node:http'
import { Problem } from '../problem.ts'

/**
 * All that is sent with a question, put together as it comes: no piece takes long. Memory of its own, which can be handed to a thread.
 * @throws Problem where it is more than `most` bytes.
 */
export async function wholeBody(from: IncomingMessage, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = () =>
    new Problem(413, 'too-large', `That is too much at once: at most ${Math.round(most / 2 ** 20)} MB.`)
  const said = Number(from.headers['content-length'])
  if (said > most) throw tooLarge()
  let whole = new Uint8Array(said > 0 ? said : 64 * 1024)
  let length = 0
  for await (const piece of from as AsyncIterable<Buffer>) {
    if (length + piece.length > most) throw tooLarge()
    if (length + piece.length > whole.length) {
      const larger = new Uint8Array(Math.min(most, 2 * (length + piece.length)))
      larger.set(whole)
      whole = larger
    }
    whole.set(piece, length)
    length += piece.length
  }
  return whole.length === length ? whole : whole.slice(0, length)
}
