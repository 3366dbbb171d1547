import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoReference } from '../demo/index.ts'
import { deriveTools, HAPPENINGS, type HappeningKind, looksOf, unprovedOnPallets } from '../setup/index.ts'
import { setupSheet } from '../sheet/index.ts'
import { inWords, shopBoard, type Task } from './index.ts'
import { lengthsNeeded, offsetsNeeded } from './needs.ts'
import { setupOf, travel } from './testing.ts'
import { ACTS } from './testing-acts.ts'
import { Shift } from './testing-shift.ts'

const keyOf = ({ step, part, about }: Task) => [step, part, about].filter(Boolean).join(' ')

const kinds = fc.constantFrom('mill' as const, 'lathe' as const)
const history = kinds.chain((kind) =>
  fc.record({
    kind: fc.constant(kind),
    acts: fc.array(
      fc.oneof(
        { weight: 4, arbitrary: fc.constantFrom(...ACTS[kind]) },
        {
          weight: 1,
          arbitrary: fc
            .constantFrom(
              ...(Object.keys(HAPPENINGS) as HappeningKind[]).filter(
                (what) => HAPPENINGS[what].said && HAPPENINGS[what].on.includes(kind),
              ),
            )
            .map((what) => ({ what })),
        },
      ),
      { maxLength: 30 },
    ),
  }),
)

function shiftOf({
  kind,
  acts,
}: {
  kind: 'mill' | 'lathe'
  acts: readonly (string | { what: HappeningKind })[]
}) {
  const shift = new Shift(kind)
  for (const act of acts)
    if (typeof act === 'string') shift.act(act)
    else shift.happen(act.what, 3)
  return shift
}

/** Everything that shows where a setup stands says the same. */
function agrees({ log }: Shift) {
  const setup = setupOf(log)
  const traveler = travel(log)
  const { steps, left, next } = traveler
  const at = Math.max(...log.map((entry) => Date.parse(entry.at)))
  const row = shopBoard(new Map([[setup.id, log]]), demoReference, at).machines.flatMap(
    ({ setups }) => setups,
  )[0]
  expect(row?.next).toEqual(next)
  expect(row?.steps.map(({ state }) => state)).toEqual(steps.map(({ state }) => state))
  const sheet = setupSheet(setup, log, demoReference, traveler, '2026-11-24T08:00:00.000Z')
  expect(sheet.left).toEqual(left.map(inWords))
  for (const { step, state, tasks } of steps) {
    if (state === 'done') expect(tasks).toEqual([])
    if (step !== 'hand-over') expect(state === 'stale').toBe(tasks.some(({ stale }) => stale))
  }
  if (next) expect(steps.find(({ step }) => step === next.step)?.state).not.toBe('done')
  // Nothing is stale that nobody asks for, and nothing is called stale that is not named.
  expect(sheet.stale).toEqual(row?.stale)
  expect([
    ...new Set(left.filter(({ stale, step }) => stale && step !== 'ready').map(({ stale }) => stale)),
  ]).toEqual(sheet.stale.length > 0 ? [true] : [])
  return traveler
}

describe('what is next', () => {
  it('ends wherever it is followed from, takes nothing back, and leaves nothing stale, unknown or unproved', () => {
    fc.assert(
      fc.property(history, (of) => {
        const shift = shiftOf(of)
        const followed: string[] = []
        for (let press = 0; press < 80; press++) {
          const { next } = agrees(shift)
          if (!next) break
          const key = keyOf(next)
          // It may take several readings to be done with one thing; once another is next, it is not asked for again.
          if (followed.at(-1) !== key) {
            expect(followed, `${key} is asked for again after ${followed.join(', ')}`).not.toContain(key)
            followed.push(key)
          }
          shift.follow(next)
        }
        const { next, left, stale } = travel(shift.log)
        expect([next, left, stale]).toEqual([undefined, [], []])
        const { setup } = shift
        const lengths = deriveTools(shift.log, setup.machine, setup.unit)
        for (const { tool, known } of lengthsNeeded(setup, { lengths, reference: demoReference }))
          expect([tool, known?.freshness.state]).toEqual([tool, 'fresh'])
        for (const { name, axes, wants } of offsetsNeeded(setup))
          expect([name, ...wants.map((axis) => axes[axis]?.freshness.state)]).toEqual([
            name,
            ...wants.map(() => 'fresh'),
          ])
        // What the pallets run was proved to the letter, and the start that was answered runs.
        const { pallets, start } = setup.run
        if (pallets) {
          expect(unprovedOnPallets(setup, pallets.entry.plan)).toEqual([])
          expect([start?.freshness.state, start?.judgement.happens]).toEqual(['fresh', 'runs'])
        }
        for (const [, { entry }] of setup.code.taken) {
          const proof = setup.prove.proofs.find((each) => each.entry.text === entry.text)
          expect(proof?.entry.verdict).toMatch(/good|look/)
          // What was said of it was let stand by somebody, one by one.
          expect(proof && looksOf(proof, setup.prove).filter(({ stands }) => !stands)).toEqual([])
        }
      }),
      {
        ...depth(100, 3000),
        // Homed again, no tool is left that the shift can be taken with: its Z comes first.
        examples: [[{ kind: 'lathe', acts: ['Z of T4', 'shift', { what: 'homed-again' }] }]],
      },
    )
  })
})
