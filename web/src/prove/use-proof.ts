import { KEPT_FINDINGS } from '@dogleg/core/fact'
import { LONGEST_PROGRAM } from '@dogleg/core/log'
import { codedWith, proofAgainst, proofRests, proveCase, toolsUsed } from '@dogleg/core/prepare'
import { MOST_WORK } from '@dogleg/core/program'
import { coverageOf, type Layout, layout as layoutSchema, type ProgramFinding } from '@dogleg/core/prove'
import { LONGEST_SAYING, offsetTable, standsFor } from '@dogleg/core/setup'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import type { OpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import type { OpenProgram } from './use-program.ts'
import { useProver } from './use-prover.ts'
import type { Drawing } from './view/drawing.ts'

/** After typing, proving waits this long. */
const PAUSE_MS = 350

/** A case as a whole; its text is kept apart. */
const keyOf = (of: object) => JSON.stringify(of)

interface ProofOf {
  open: OpenSetup
  program: OpenProgram | null | undefined
  /** The offset whose part zero the layout counts from. */
  frame: string
  layout: Layout
  /** The layout is not the one in the log. */
  areaChanged: boolean
  skipOptional: boolean
  /** How many times the usual work may be spent on reading. */
  further: number
  drawing: Drawing
}

/** The program proved as it stands, again whenever the text or a fact changes; and the proof that the log has of it. */
export function useProof({
  open,
  program,
  frame,
  layout,
  areaChanged,
  skipOptional,
  further,
  drawing,
}: ProofOf) {
  const { setup, machineEntries, lengths, reference } = open
  const { machine, profile } = setup
  const signed = useSigned()
  const text = program?.text ?? ''
  const { bodies } = layout
  const table = useMemo(
    () => offsetTable(setup, machineEntries, reference),
    [setup, machineEntries, reference],
  )
  const of = useMemo(
    () => ({
      ...proveCase(setup, table, lengths, reference.tools, layout, { text: '', frame, skipOptional }),
      ...(further > 1 ? { mostWork: further * MOST_WORK } : {}),
    }),
    [setup, table, lengths, reference.tools, layout, frame, skipOptional, further],
  )
  // The log is asked again and again: only what changes the case proves it again.
  const key = useMemo(() => keyOf(of), [of])
  const { now, share, proved, prove, stop: stopProving, clear } = useProver(drawing)
  const latest = useRef({ of, text })
  latest.current = { of, text }
  const proveAgain = useCallback(() => void prove(latest.current.of, latest.current.text), [prove])
  const first = useRef(true)
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined)
  /** Stops what is being proved, and what was about to be after a pause. */
  const stop = useCallback(() => {
    clearTimeout(waiting.current)
    stopProving()
  }, [stopProving])
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is in the case is compared by its key
  useEffect(() => {
    if (text.length === 0) {
      clear()
      return
    }
    const wait = first.current ? 0 : PAUSE_MS
    first.current = false
    waiting.current = setTimeout(proveAgain, wait)
    return () => clearTimeout(waiting.current)
  }, [text, key, proveAgain, clear])

  const proof = proved?.proof
  const motion = proof?.program.motion
  const provedKey = useMemo(() => proved && keyOf(proved.of), [proved])
  /** What is on screen is the proof of what stands there now, to the last fact. */
  const current = now.state === 'done' && proved?.text === text && provedKey === key
  const hash = current ? proved?.hash : undefined
  /** Who let a finding of just this text stand. */
  const standing = (finding: ProgramFinding) =>
    hash === undefined ? undefined : standsFor(setup.prove.letStand, hash, finding)
  const letStand =
    hash === undefined
      ? undefined
      : ({ code, line, says }: ProgramFinding) =>
          signed(() => {
            record(setup.id, {
              kind: 'let-stand',
              title: program?.title.trim() || 'Program',
              hash,
              code,
              line,
              says: says.slice(0, LONGEST_SAYING),
            })
          })
  const recordProof = () =>
    signed(() => {
      if (!proof || proof.verdict === 'stop' || !proved || !motion || !program || !current) return
      if (!layoutSchema.safeParse(layout).success) return
      const used = {
        offsets: [...new Set(motion.states.map((state) => state.offset))],
        tools: toolsUsed(motion.states),
      }
      const coded = typeof text === 'string' ? codedWith(setup, text, reference) : undefined
      const rests = proofRests(setup, lengths, used, coded)
      const area =
        areaChanged && bodies.length > 0 ? record(setup.id, { kind: 'laid-out', ...layout }) : undefined
      const count = (severity: string) => proof.findings.filter((each) => each.severity === severity).length
      record(setup.id, {
        kind: 'proved',
        title: program.title.trim() || 'Program',
        frame,
        hash: proved.hash,
        characters: text.length,
        ...(typeof text === 'string' && text.length <= LONGEST_PROGRAM ? { text } : {}),
        ...(skipOptional ? { blockDelete: true } : {}),
        verdict: proof.verdict,
        counts: { stop: count('stop'), look: count('look'), note: count('note') },
        worst: proof.findings
          .slice(0, KEPT_FINDINGS)
          .map(({ code, line, says }) => ({ code, line, says: says.slice(0, LONGEST_SAYING) })),
        seconds: proof.time.total,
        rests: [
          ...rests.filter((id) => !area || id !== setup.prove.layout?.entry.id),
          ...(area ? [area.id] : []),
        ],
        lengths: of.lengths
          .filter((each) => used.tools.includes(each.tool))
          .map(({ tool, length }) => ({ tool, length })),
        tools: of.tools
          .filter(({ number }) => used.tools.includes(number))
          .map(({ id, version }) => ({ id, version })),
        uses: used.tools,
        coverage: coverageOf(proof.program),
        profile: { id: profile.id, version: profile.version },
        machine: { id: machine.id, version: machine.version },
      })
    })
  const fact = setup.prove.proofs.find(({ entry }) => entry.title === (program?.title.trim() || 'Program'))
  const against =
    fact?.freshness.state === 'stale'
      ? fact.freshness.cause.says
      : fact && proved && current
        ? (proofAgainst(fact, { hash: proved.hash, blockDelete: skipOptional, lengths, setup }) ??
          (areaChanged ? 'proved before the work area was changed' : undefined))
        : undefined
  return { of, now, share, proved, current, proveAgain, stop, fact, against, recordProof, standing, letStand }
}
