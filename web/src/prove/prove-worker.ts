import { type PathPicture, type Proof, type ProveCase, pathPicture, prove } from '@dogleg/core/prove'
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { expose, transfer } from 'comlink'
import { type Extent, pathExtent } from './view/view-frame.ts'

export interface Proved {
  proof: Proof
  picture: PathPicture
  /** Where it feeds; undefined where it does not. */
  extent: Extent | undefined
  /** SHA-256 of the text. */
  hash: string
  /** Where each line begins in the text. */
  lineStarts: Uint32Array
}

function lineStartsOf(text: string): Uint32Array {
  const starts = [0]
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1)
  return Uint32Array.from(starts)
}

/** The memory behind every typed array, to be handed over instead of copied. */
function buffersOf(value: object, found = new Set<ArrayBuffer>()): Set<ArrayBuffer> {
  for (const part of Object.values(value))
    if (ArrayBuffer.isView(part) && part.buffer instanceof ArrayBuffer) found.add(part.buffer)
  return found
}

// Programs are read and proved here, so that the page does not stand still.
const prover = {
  /** A case with a text, which comes as a file where it is large. */
  async prove(asked: ProveCase, from: string | Blob, onProgress: (share: number) => void): Promise<Proved> {
    const of = { ...asked, text: typeof from === 'string' ? from : await from.text() }
    let last = 0
    const proof = prove(of, (share) => {
      const now = performance.now()
      if (now - last > 50) {
        last = now
        onProgress(share)
      }
      return true
    })
    const picture = pathPicture(proof.program.motion, proof.speeds, proof.axis, proof.program.written)
    // What is drawn of it is in the picture: the page has no use for it.
    delete proof.program.written
    const hash = bytesToHex(sha256(utf8ToBytes(of.text)))
    const lineStarts = lineStartsOf(of.text)
    const arrays = [proof.program.motion, proof.time, picture, { lineStarts }]
    const buffers = arrays.flatMap((each) => [...buffersOf(each)])
    return transfer({ proof, picture, extent: pathExtent(picture), hash, lineStarts }, [...new Set(buffers)])
  },
}
export type Prover = typeof prover

expose(prover)
