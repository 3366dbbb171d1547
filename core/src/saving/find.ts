import type { Verdict } from '../fact/index.ts'
import { endOf, ROW } from '../program/index.ts'
import { type Body, type Layout, type Proof, type ProveCase, prove } from '../prove/index.ts'
import { type Candidate, type SavingCase, savingCase } from './case.ts'
import { holeFinders } from './holes.ts'
import { idleFinders } from './idle.ts'
import { inAir, moveFinders } from './moves.ts'
import { toolOrder } from './tool-order.ts'

/** A change that saves time and that Prove does not refuse: the seconds are those of the program before and after it. */
export interface SavingOffer extends Candidate {
  /** Seconds a part. */
  seconds: number
  /** What Prove says of the text with the change. */
  verdict: Verdict
}

export interface Savings {
  /** Seconds of the program as it is. */
  before: number
  verdict: Verdict
  /** The most seconds first. */
  offers: SavingOffer[]
  /** Changes that were looked at and that Prove would refuse, or that save nothing. */
  refused: number
  /** Without a part in the work area, levels and air are not looked at. */
  placed: boolean
  cancelled: boolean
}

/** What saves less is not worth a change. */
const LEAST_SECONDS = 0.05
/** Longer programs are not looked at: each change is proved in full. */
export const LONGEST_LOOKED = 300_000
const MOST_CANDIDATES = 80

/** Bodies that nothing may come near, larger by the clearance all round; the part as it is. */
function withRoom({ unit, bodies }: Layout, clearance: number): Layout {
  const larger = (body: Body): Body => {
    if (body.role === 'part') return body
    const at = { x: body.at.x - clearance, y: body.at.y - clearance, z: body.at.z - clearance }
    if (body.shape === 'box') {
      const { x, y, z } = body.size
      return { ...body, at, size: { x: x + 2 * clearance, y: y + 2 * clearance, z: z + 2 * clearance } }
    }
    const along = body.axis.toLowerCase() as 'x' | 'y' | 'z'
    return {
      ...body,
      at: { ...body.at, [along]: body.at[along] - clearance },
      diameter: body.diameter + 2 * clearance,
      length: body.length + 2 * clearance,
    }
  }
  return { unit, bodies: bodies.map(larger) }
}

/** How many things are said of each severity, and how often in all; one change may not make more of any. */
function counts({ findings }: Pick<Proof, 'findings'>): number[] {
  return ['stop', 'look'].flatMap((severity) => {
    const own = findings.filter((each) => each.severity === severity)
    return [own.length, own.reduce((sum, { more }) => sum + 1 + (more ?? 0), 0)]
  })
}

/** Whether a proof says no more against a program than another. */
export const noWorse = (after: Pick<Proof, 'findings'>, before: Pick<Proof, 'findings'>) => {
  const known = counts(before)
  return counts(after).every((count, index) => count <= (known[index] as number))
}

/**
 * What the program cuts: where each move at feed ends that is not all in the air, with its feed and tool, and each tap and
 * thread; in no order. Two programs with the same do the same to the part. Touches of a probe count unless its way is changed.
 */
export function cutsOf({ program: { motion } }: Proof, of: SavingCase, touches: boolean): string {
  const cuts: string[] = []
  for (let row = 0; row < motion.count; row++) {
    const kind = motion.kind[row] as number
    if (kind === ROW.RAPID || kind === ROW.EVENT || kind === ROW.TAP_OUT) continue
    if (kind === ROW.PROBE && !touches) continue
    if (kind === ROW.LINE && inAir(of, motion, row)) continue
    const state = motion.states[motion.state[row] as number]
    const at = endOf(motion, row).map((each) => Math.round(each * 1e5))
    cuts.push(`${kind}/${state?.tool}/${Math.fround(motion.feed[row] as number)}/${at.join()}`)
  }
  return cuts.sort().join('\n')
}

/** A change as an offer, where it may be one. */
function isOffered(
  candidate: Candidate,
  of: SavingCase,
  roomy: Proof,
  scene: ProveCase,
): SavingOffer | undefined {
  const proof = prove({ ...of.of, text: candidate.after })
  const seconds = of.proof.time.total - proof.time.total
  if (seconds < LEAST_SECONDS || !noWorse(proof, of.proof)) return undefined
  const touches = candidate.code !== 'probe-on'
  if (cutsOf(proof, of, touches) !== cutsOf(of.proof, of, touches)) return undefined
  if (!noWorse(prove({ ...scene, text: candidate.after }), roomy)) return undefined
  return { ...candidate, seconds, verdict: proof.verdict }
}

/**
 * What would save time in a program, each as a change of its text. Every change is read and proved: it is offered only where
 * Prove says no more against it than before, with everything that stands in the way larger by the usual clearance too, where
 * each cut stays the cut that it was, and where it takes less time. `onProgress` is told the share done, and stops the work by
 * giving false.
 */
export function findSavings(of: ProveCase, onProgress: (share: number) => boolean = () => true): Savings {
  const proof = prove(of)
  const own = savingCase(of, proof)
  const result: Savings = {
    before: proof.time.total,
    verdict: proof.verdict,
    offers: [],
    refused: 0,
    placed: proof.top !== undefined,
    cancelled: false,
  }
  const lathe = of.machine.kind === 'lathe'
  const finders = [...holeFinders, ...moveFinders, toolOrder].filter(() => !lathe)
  const candidates = [...finders, ...idleFinders].flatMap((find) => find(own)).slice(0, MOST_CANDIDATES)
  const scene = { ...of, layout: withRoom(proofLayout(proof, of), own.clearance) }
  const roomy = prove(scene)
  for (const [index, candidate] of candidates.entries()) {
    if (!onProgress((index + 1) / (candidates.length + 1))) return { ...result, cancelled: true }
    const offer = isOffered(candidate, own, roomy, scene)
    if (offer) result.offers.push(offer)
    else result.refused++
  }
  result.offers.sort((a, b) => b.seconds - a.seconds)
  return result
}

/** What was placed, in the unit of the motion. */
const proofLayout = ({ bodies }: Proof, { unit }: ProveCase): Layout => ({ unit, bodies })
