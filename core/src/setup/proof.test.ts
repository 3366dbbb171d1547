import { describe, expect, it } from 'vitest'
import { demoEntries, demoReference } from '../demo/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import { proofAgainst, staleLayout, toolsUsed } from '../prepare/index.ts'
import { deriveSetup, type Setup } from './derive.ts'
import type { Entry } from './kinds.ts'
import { isUnreadable } from './log-lines.ts'
import type { Reference } from './reference.ts'
import { faultOf } from './testing-read.ts'
import { deriveTools } from './tools.ts'

let seed = 7
const random = () => {
  seed = (seed * 16807) % 2147483647
  return seed / 2147483647
}
const NOW = Date.UTC(2026, 10, 25, 9)
const all = demoEntries(NOW, random)
const id = all.find((entry) => entry.kind === 'opened' && /first side/.test(entry.title))?.setup ?? ''
const log = all.filter((entry) => entry.setup === id)
const at = new Date(NOW).toISOString()
let count = 0
const stamped = (entry: object): Entry =>
  ({ id: `01KB${String(++count).padStart(22, '0')}`, setup: id, at, by: 'RT', ...entry }) as Entry
const setupOf = (more: Entry[] = [], reference: Reference = demoReference): Setup => {
  const setup = deriveSetup([...log, ...more], reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const cause = (setup: Setup) => {
  const freshness = setup.prove.proofs[0]?.freshness
  return freshness?.state === 'stale' ? freshness.cause.says : 'fresh'
}

describe('a proof', () => {
  it('holds while nothing changes', () => {
    expect(cause(setupOf())).toBe('fresh')
  })

  it.each([
    [
      'the vise is moved',
      { kind: 'happened', what: 'vise-moved', note: '' },
      'proved before the vise was moved',
    ],
    [
      'the part is clamped again',
      { kind: 'happened', what: 'part-reclamped', note: '' },
      'proved before the part was clamped again',
    ],
    [
      'a tool is measured again at the control',
      { kind: 'happened', what: 'tool-measured-again', tool: 12, note: '' },
      'proved before its tool was measured again',
    ],
    [
      'the work area is laid out again',
      { kind: 'laid-out', unit: 'inch', bodies: [] },
      'proved before what stands in the work area was taken again',
    ],
  ])('goes stale when %s', (_, entry, says) => {
    expect(cause(setupOf([stamped(entry)]))).toBe(says)
  })

  it('goes stale with the machine, the profile or the shape of a tool that it used', () => {
    const edited = <T extends { id: string; version: number }>(rows: readonly T[], which: string) =>
      rows.map((row) => (row.id === which ? { ...row, version: row.version + 1 } : row))
    const { machines, profiles, tools } = demoReference
    const withThese = (more: Partial<Reference>) => cause(setupOf([], { ...demoReference, ...more }))
    expect(withThese({ machines: edited(machines, 'mill-1') })).toContain('Mill 1, which has been edited')
    expect(withThese({ profiles: edited(profiles, 'compact') })).toContain(
      'the machine now speaks Compact version 2',
    )
    expect(withThese({ tools: edited(tools, 'mill-1-t7') })).toBe(
      'proved before the shape of a tool was edited',
    )
    expect(withThese({ tools: edited(tools, 'mill-1-t20') })).toBe('fresh')
    // A shape that was not known when it was proved: only of a tool that the program uses, and on this machine.
    const [t3] = tools.filter(({ id }) => id === 'mill-1-t3') as [ToolShape]
    const entered = (more: Partial<ToolShape>) =>
      withThese({ tools: [...tools, { ...t3, id: 'new', version: 1, ...more }] })
    expect(entered({})).toBe('proved before the shape of T3 was entered')
    expect(entered({ number: 30 })).toBe('fresh')
    expect(entered({ machineId: 'mill-2' })).toBe('fresh')
  })

  it('is for its exact text, and for the lengths that other setups may change', () => {
    const setup = setupOf()
    const [proof] = setup.prove.proofs
    if (!proof) throw new Error('the demo has a proof')
    const lengths = deriveTools(log, setup.machine as Machine, 'inch')
    const against = (hash: string, of = lengths, blockDelete = false) =>
      proofAgainst(proof, { hash, blockDelete, lengths: of, setup })
    expect(against(proof.entry.hash)).toBeUndefined()
    expect(against('0'.repeat(64))).toBe('proved before the text was changed')
    expect(against(proof.entry.hash, lengths, true)).toBe('proved with block delete off')
    const skipped = { ...proof, entry: { ...proof.entry, blockDelete: true } }
    const now = { hash: proof.entry.hash, lengths, setup }
    expect(proofAgainst(skipped, { ...now, blockDelete: false })).toBe('proved with block delete on')
    expect(proofAgainst(skipped, { ...now, blockDelete: true })).toBeUndefined()
    const other = lengths.map((each) =>
      each.tool === 3 ? { ...each, length: { ...each.length, value: each.length.value + 0.01 } } : each,
    )
    expect(against(proof.entry.hash, other)).toBe('proved before the length of T3 was changed')
    expect(against(proof.entry.hash, [])).toContain('proved before the length of')
    // A length that nobody knew then.
    const unknown = {
      ...proof,
      entry: { ...proof.entry, lengths: proof.entry.lengths.filter(({ tool }) => tool !== 3) },
    }
    const found = { hash: proof.entry.hash, blockDelete: false, setup }
    expect(proofAgainst(unknown, { ...found, lengths })).toBe('proved before the length of T3 was measured')
    expect(
      proofAgainst(unknown, { ...found, lengths: lengths.filter(({ tool }) => tool !== 3) }),
    ).toBeUndefined()
    const { uses: _, ...old } = unknown.entry
    expect(proofAgainst({ ...unknown, entry: old }, { ...found, lengths })).toBeUndefined()
  })

  it('names every tool that the program calls, but no number that none can have', () => {
    const states = [3, 7, 3, 0, 9999, 10_000, -2, 1.5, Number.NaN].map((tool) => ({ tool }))
    expect(toolsUsed(states)).toEqual([3, 7, 0, 9999])
    const [proof] = setupOf().prove.proofs
    const { text: _, ...entry } = proof?.entry ?? {}
    expect(faultOf({ ...entry, uses: toolsUsed(states) })).toBeUndefined()
    expect(faultOf({ ...entry, uses: [10_000] })).toBeDefined()
  })

  it('a layout that is stale is said, by what made it so', () => {
    expect(staleLayout(setupOf())).toEqual([])
    const [said] = staleLayout(setupOf([stamped({ kind: 'happened', what: 'vise-moved', note: '' })]))
    expect(said).toMatchObject({ code: 'layout-stale', why: 'It was placed before the vise was moved.' })
  })
})
