import type { LinearAxis, Machine } from '../machine/index.ts'
import { readPalletPlan, readPallets } from '../pallet/index.ts'
import type { Reading } from '../pickup/index.ts'
import { proofRests, proveCase } from '../prepare/index.ts'
import { coverageOf, type ProveCase, prove } from '../prove/index.ts'
import { asTyped } from '../quantity/index.ts'
import { deriveSetup, deriveTools, isUnreadable, offsetTable, palletRests } from '../setup/index.ts'
import { openLog } from './log-pen.ts'
import {
  bracketAlone,
  bracketFirst,
  bracketFirstSaved,
  bracketLayout,
  bracketPallets,
  bracketSecond,
} from './pallets.ts'
import { demoReference } from './reference.ts'

/** SHA-256 of the texts. */
export const BRACKET_HASHES = {
  first: '7bf098d65da921c5652d870240505f0a46a8862b7d380b8295fbe15dc0af97af',
  firstSaved: '1ee8b7619b8a2e78ec49153e45f0350b505efbadc844d40983cc58b83a68f0c4',
  second: '65381b5e247a109fc533b2640d8487b1de82a40571ef20a17ac1a50d1d7483b9',
}

const mm = (value: number) => asTyped(value, 'mm')

/** The bracket on both pallets of Mill 2: zeros, lengths, both programs proved, a saving taken, timed, and the pallets planned with programs that still call each other. */
export function palletSetup(start: number, nextId: (at: number) => string, machine: Machine) {
  const on = { id: machine.id, version: machine.version }
  const pen = openLog(start, 'LB', nextId, {
    kind: 'opened',
    title: 'Counterweight bracket, both operations',
    machine: on,
    unit: 'mm',
    tolerance: mm(0.05),
  })
  const pickup = (minutes: number, offset: string, reading: Reading) =>
    pen.write(minutes, { kind: 'pickup', offset, reading, machine: on })
  const edge = (axis: LinearAxis & ('X' | 'Y'), machinePosition: number): Reading => ({
    method: 'edge-finder',
    axis,
    direction: '+',
    diameter: mm(10),
    machinePosition: mm(machinePosition),
    drawingPosition: mm(0),
  })
  pen.getReady(machine)
  for (const [tool, position] of [
    [1, -402.15],
    [2, -371.4],
    [3, -380.05],
    [4, -398.6],
  ] as const)
    pen.write(3, {
      kind: 'tool-length',
      tool,
      machinePosition: mm(position),
      masterPosition: mm(-412),
      masterLength: mm(150),
      machine: on,
    })
  for (const [offset, x, y, z] of [
    ['G54', -445.012, -315.284, -371.96],
    ['G55', -444.876, -315.107, -372.02],
  ] as const) {
    pickup(6, offset, edge('X', x))
    pickup(3, offset, edge('Y', y))
    pickup(4, offset, {
      method: 'tool-on-block',
      axis: 'Z',
      tool: 2,
      toolLength: mm(190.6),
      blockHeight: mm(50),
      machinePosition: mm(z + 50),
      drawingPosition: mm(0),
    })
    const { setup } = standing()
    const own = setup.offsets.find(({ name }) => name === offset)
    pen.write(4, {
      kind: 'checked',
      offset,
      rests: Object.values(own?.axes ?? {}).flatMap(({ entry }) =>
        entry.reading.axis === 'Z' ? [] : [entry.id],
      ),
      result: 'agrees',
      note: '',
    })
  }
  pen.write(5, { kind: 'laid-out', ...bracketLayout })

  function standing() {
    const setup = deriveSetup(pen.log, demoReference)
    if (isUnreadable(setup)) throw new Error(setup.unreadable)
    const lengths = deriveTools(pen.log, machine, 'mm')
    return { setup, lengths }
  }
  const proofOf = (text: string, frame: string) => {
    const { setup, lengths } = standing()
    const table = offsetTable(setup, pen.log, demoReference)
    const of: ProveCase = proveCase(setup, table, lengths, demoReference.tools, bracketLayout, {
      text,
      frame,
    })
    return prove(of)
  }
  const record = (
    minutes: number,
    title: string,
    text: string,
    hash: string,
    frame: string,
    tools: number[],
  ) => {
    const { setup, lengths } = standing()
    const { verdict, findings, time, program } = proofOf(text, frame)
    const count = (severity: string) => findings.filter((each) => each.severity === severity).length
    const own = demoReference.tools.filter(
      ({ machineId, number }) => machineId === machine.id && tools.includes(number),
    )
    pen.write(minutes, {
      kind: 'proved',
      title,
      frame,
      hash,
      characters: text.length,
      text,
      verdict,
      counts: { stop: count('stop'), look: count('look'), note: count('note') },
      worst: findings.map(({ code, line, says }) => ({ code, line, says })),
      seconds: time.total,
      rests: proofRests(setup, lengths, { offsets: [frame], tools }),
      lengths: lengths
        .filter(({ tool }) => tools.includes(tool))
        .map(({ tool, length }) => ({ tool, length: length.value })),
      tools: own.map(({ id, version }) => ({ id, version })),
      uses: tools,
      coverage: coverageOf(program),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine: on,
    })
    for (const { severity, code, line, says } of findings)
      if (severity === 'look') pen.write(1, { kind: 'let-stand', title, hash, code, line, says })
    return time
  }
  const first = 'O5501 first operation'
  const before = record(12, first, bracketAlone(bracketFirst), BRACKET_HASHES.first, 'G54', [1, 2, 3])
  const second = record(
    9,
    'O5502 second operation',
    bracketAlone(bracketSecond),
    BRACKET_HASHES.second,
    'G55',
    [4],
  )
  const profile = { id: machine.profileId, version: 1 }
  const timed = (minutes: number, title: string, hash: string, time: typeof before, seconds: number) =>
    pen.write(minutes, {
      kind: 'timed',
      title,
      hash,
      reckoned: time.parts,
      seconds,
      doubt: 0.5,
      cycles: 1,
      how: 'stopwatch',
      machine: on,
      profile,
    })
  timed(20, first, BRACKET_HASHES.first, before, 139.2)
  timed(6, 'O5502 second operation', BRACKET_HASHES.second, second, 81.3)
  pen.write(15, {
    kind: 'saved',
    title: first,
    code: 'tap-retract',
    line: 36,
    says: 'Let the tap come out 5.5 times as fast.',
    before: { hash: BRACKET_HASHES.first, seconds: before.total },
    after: {
      hash: BRACKET_HASHES.firstSaved,
      seconds: proofOf(bracketAlone(bracketFirstSaved), 'G54').time.total,
    },
    verdict: 'look',
    text: bracketAlone(bracketFirstSaved),
  })
  record(4, first, bracketAlone(bracketFirstSaved), BRACKET_HASHES.firstSaved, 'G54', [1, 2, 3])
  const { plan, problems } = readPalletPlan(
    {
      ...bracketPallets,
      pallets: bracketPallets.pallets.map((pallet, index) =>
        index === 0 ? { ...pallet, program: { title: first, text: bracketFirstSaved } } : pallet,
      ),
    },
    'mm',
  )
  const { setup } = standing()
  if (!plan) throw new Error(JSON.stringify(problems))
  const reading = readPallets(plan, { machine, profile: setup.profile, unit: 'mm' })
  pen.write(18, {
    kind: 'palleted',
    plan,
    rests: palletRests(
      setup,
      plan.pallets.map(({ program }) => program.text),
    ),
    seconds: reading.seconds,
    verdict: reading.findings.some(({ severity }) => severity === 'stop') ? 'stop' : 'good',
    worst: reading.findings.map(({ says }) => says),
    profile,
    machine: on,
  })
  pen.write(6, {
    kind: 'handed-over',
    note: 'It stopped over lunch with an alarm about nesting; the second pallet was ready all the time.',
    stale: [],
    open: [],
    left: ['Run: Mend the programs of the pallets.'],
  })
  return pen.log
}
