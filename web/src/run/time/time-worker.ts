import type { Verdict } from '@dogleg/core/fact'
import { type ProveCase, prove } from '@dogleg/core/prove'
import { findSavings, type SavingOffer, type Savings } from '@dogleg/core/saving'
import { type TimeParts, type TimeSection, type ToolTime, whereTimeGoes } from '@dogleg/core/timing'
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { expose } from 'comlink'

const hashOf = (text: string) => bytesToHex(sha256(utf8ToBytes(text)))

/** Where the time of a program goes, and what Prove says of it. */
export interface TimeAnswer {
  hash: string
  total: number
  parts: TimeParts
  sections: TimeSection[]
  tools: ToolTime[]
  verdict: Verdict
  stops: number
  assumed: string[]
}

/** An offer with the SHA-256 of the text that it makes. */
export type HashedOffer = SavingOffer & { hash: string }
export type SavingsAnswer = Omit<Savings, 'offers'> & { offers: HashedOffer[]; hash: string }

// Programs are proved here, and every change of them again, so that the page does not stand still.
const timer = {
  time(of: ProveCase): TimeAnswer {
    const { program, time, speeds, verdict, findings } = prove(of)
    return {
      hash: hashOf(of.text),
      total: time.total,
      parts: time.parts,
      ...whereTimeGoes(of.text, program.motion, time, speeds),
      verdict,
      stops: findings.filter(({ severity }) => severity === 'stop').length,
      assumed: speeds.assumed,
    }
  },
  savings(of: ProveCase, onProgress: (share: number) => void): SavingsAnswer {
    const found = findSavings(of, (share) => {
      onProgress(share)
      return true
    })
    return {
      ...found,
      hash: hashOf(of.text),
      offers: found.offers.map((offer) => ({ ...offer, hash: hashOf(offer.after) })),
    }
  },
}
export type Timer = typeof timer

expose(timer)
