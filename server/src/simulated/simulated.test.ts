import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { convertLength } from '@dogleg/core/quantity'
import { EXERCISES, goodHandAt, type PracticeResult } from '@dogleg/core/simulated'
import { ulid } from 'ulid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { validateXML } from 'xmllint-wasm'
import type { ProblemBody } from '../problem.ts'
import { type DemoApp, demoApp } from '../testing/app.ts'

let demo: DemoApp
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

const xsd = (name: string) => ({
  fileName: `${name}.xsd`,
  contents: readFileSync(join(import.meta.dirname, `../testing/mtconnect/${name}.xsd`), 'utf8'),
})
/** What libxml2 has against a document, by the structure of the standard. */
const faults = async (text: string, name: 'devices' | 'streams') => {
  const { errors } = await validateXML({
    xml: [{ fileName: 'document.xml', contents: text }],
    schema: [xsd(name)],
  })
  return errors.map(({ message }) => message)
}

interface Seen {
  id: string
  seed: number
  view: {
    says: string
    positions: Record<string, number>
    alarm: { code: string } | null
    run: { phase: string } | null
    mounted: { kind: string }
  }
}
const act = async (id: string, ...actions: unknown[]) => {
  const { status, body } = await demo.ask('POST', `/api/simulated/${id}/actions`, { actions })
  expect(status).toBe(200)
  return body as Seen
}

describe('what a simulated machine publishes', () => {
  it('has the structure of the standard, in every state: at rest, in alarm, running, inch and mm, mill and lathe', async () => {
    for (const machine of ['mill-1', 'mill-2', 'lathe-1']) {
      expect((await demo.ask('PUT', `/api/simulated/${machine}`, { machine, seed: 7 })).status).toBe(200)
      const documents = async () => {
        const [probe, current, sample] = await Promise.all(
          ['probe', 'current', 'sample'].map((path) => demo.ask('GET', `/simulated/${machine}/${path}`)),
        )
        expect(probe?.type).toContain('text/xml')
        expect(await faults(probe?.text ?? '', 'devices')).toEqual([])
        expect(await faults(current?.text ?? '', 'streams')).toEqual([])
        expect(await faults(sample?.text ?? '', 'streams')).toEqual([])
        return current?.text ?? ''
      }
      await documents()
      await act(machine, { do: 'jog', axis: 'X', by: -1.2345 }, { do: 'spindle', rpm: 800 })
      expect(await documents()).toContain('>800<')
      await act(
        machine,
        { do: 'load', text: 'G21 G90\nG53 G0 Z0.\nG4 P5000\nM30' },
        { do: 'single', on: false },
      )
      await act(machine, { do: 'start' })
      expect(await documents()).toContain('>ACTIVE<')
      await act(
        machine,
        { do: 'reset' },
        { do: 'mount', what: machine === 'lathe-1' ? 'tool' : 'probe', tool: 4 },
      )
    }
    await act('mill-1', { do: 'spindle', rpm: 500 })
    expect((await demo.ask('GET', '/simulated/mill-1/current')).text).toContain('<Fault')
    // The check itself: a document with something missing is found out.
    const { text } = await demo.ask('GET', '/simulated/mill-1/current')
    expect(await faults(text.replace(/ sequence="\d+"/, ''), 'streams')).not.toEqual([])
    expect(await faults(text.replace('>AVAILABLE<', '>PERHAPS<'), 'streams')).not.toEqual([])
  })

  it('tells positions in mm whatever the control shows, and the same ones as the page', async () => {
    await demo.ask('PUT', '/api/simulated/mill-1', { machine: 'mill-1', seed: 8 })
    const { view } = await act('mill-1', { do: 'jog', axis: 'X', by: -9.2205 })
    expect(view.positions.X).toBe(-9.2205)
    const { text } = await demo.ask('GET', '/simulated/mill-1/current')
    const told = Number(/<Position dataItemId="x_position"[^>]*>([-\d.]+)</.exec(text)?.[1])
    expect(told).toBeCloseTo(convertLength(-9.2205, 'inch', 'mm'), 6)
    const read = await demo.ask('GET', '/api/machines/mill-1/positions')
    expect(read.body).toMatchObject({
      unit: 'inch',
      positions: { X: -9.2205, Y: 0, Z: 0 },
      name: 'the simulated Mill 1',
    })
  })

  it('tells the angle of its rotary, in degrees', async () => {
    await demo.ask('PUT', '/api/simulated/mill-1', { machine: 'mill-1', seed: 8 })
    await act('mill-1', { do: 'table', stands: 'rotary' })
    const { view } = await act('mill-1', { do: 'turn', by: -12.345 })
    expect(view).toMatchObject({ rotary: { word: 'A', shown: -12.345, onTable: true } })
    const { text } = await demo.ask('GET', '/simulated/mill-1/current')
    expect(/<Angle dataItemId="a_angle"[^>]*>([-\d.]+)</.exec(text)?.[1]).toBe('-12.345')
    expect(await faults(text, 'streams')).toEqual([])
    const read = await demo.ask('GET', '/api/machines/mill-1/positions')
    expect(read.body).toMatchObject({ rotary: { degrees: -12.345 } })
    const other = await demo.ask('GET', '/api/machines/mill-2/positions')
    expect(other.body).not.toHaveProperty('rotary')
  })

  it('reads back what the display shows, to its last digit, wherever it stands', async () => {
    for (const [machine, step, digits] of [
      ['mill-1', 0.0001, 4],
      ['mill-2', 0.001, 3],
    ] as const) {
      await demo.ask('PUT', `/api/simulated/${machine}`, { machine, seed: 12 })
      for (let n = 1; n <= 40; n++) {
        const { view } = await act(machine, {
          do: 'jog',
          axis: n % 2 ? 'X' : 'Y',
          by: -step * ((n * 7919) % 3000),
        })
        const { body } = await demo.ask('GET', `/api/machines/${machine}/positions`)
        const { positions } = body as { positions: Record<string, number> }
        for (const axis of ['X', 'Y', 'Z'])
          expect([axis, n, positions[axis]?.toFixed(digits)]).toEqual([
            axis,
            n,
            view.positions[axis]?.toFixed(digits),
          ])
      }
    }
  })

  it('numbers what it observed without a gap, and refuses a place that is no longer there', async () => {
    await demo.ask('PUT', '/api/simulated/mill-2', { machine: 'mill-2', seed: 3 })
    for (let n = 0; n < 5; n++) await act('mill-2', { do: 'jog', axis: 'Y', by: -1 })
    const { text } = await demo.ask('GET', '/simulated/mill-2/sample?from=1&count=1000')
    const numbers = [...text.matchAll(/ sequence="(\d+)"/g)].map(([, n]) => Number(n)).sort((a, b) => a - b)
    expect(numbers).toEqual(numbers.map((_, index) => index + 1))
    const next = Number(/nextSequence="(\d+)"/.exec(text)?.[1])
    expect(next).toBe(numbers.length + 1)
    const later = await demo.ask('GET', `/simulated/mill-2/sample?from=${next}`)
    expect(later.text).not.toContain('dataItemId')
    for (const [query, code] of [
      ['from=9999', 'OUT_OF_RANGE'],
      ['from=x', 'INVALID_REQUEST'],
      ['count=0', 'INVALID_REQUEST'],
      ['interval=100', 'UNSUPPORTED'],
    ]) {
      const { status, text: refused } = await demo.ask('GET', `/simulated/mill-2/sample?${query}`)
      expect([query, status, refused.includes(`errorCode="${code}"`)]).toEqual([query, 400, true])
    }
    expect((await demo.ask('GET', '/simulated/nobody/current')).text).toContain('NO_DEVICE')
  })
})

describe('a simulated machine on the server', () => {
  it('still tells everything after more was observed than it keeps', async () => {
    await demo.ask('PUT', '/api/simulated/long', { machine: 'mill-1', seed: 4 })
    const moves = Array.from({ length: 200 }, (_, n) => ({ do: 'jog', axis: 'X', by: n % 2 === 0 ? -1 : 1 }))
    for (let n = 0; n < 22; n++) await act('long', ...moves)
    const { text } = await demo.ask('GET', '/simulated/long/current')
    for (const element of ['Availability', 'Position', 'Execution', 'Normal'])
      expect([element, text.includes(`<${element} `)]).toEqual([element, true])
    const first = Number(/firstSequence="(\d+)"/.exec(text)?.[1])
    expect(first).toBeGreaterThan(1)
    expect((await demo.ask('GET', '/simulated/long/sample?from=1')).status).toBe(400)
    expect((await demo.ask('GET', `/simulated/long/sample?from=${first}`)).status).toBe(200)
  })

  it('lets a program run by the clock, whoever looks', async () => {
    await demo.ask('PUT', '/api/simulated/mill-1', { machine: 'mill-1', seed: 9 })
    const text = 'G20 G90 G94\nG53 G0 Z0.\nG1 G53 X-10. F100.\nM30'
    await act(
      'mill-1',
      { do: 'load', text },
      { do: 'single', on: false },
      { do: 'override', rapid: 100 },
      { do: 'start' },
    )
    demo.pass(3)
    const at = ((await demo.ask('GET', '/api/simulated/mill-1')).body as Seen).view
    expect(at.run?.phase).toBe('running')
    // 100 in/min for three seconds: five inches of the ten.
    expect(at.positions.X).toBeCloseTo(-5, 1)
    demo.pass(60)
    expect(((await demo.ask('GET', '/api/simulated/mill-1')).body as Seen).view.run?.phase).toBe('done')
  })

  it('is one for all who work at it, is anew when it is switched on again, and says when it is off', async () => {
    await demo.ask('PUT', '/api/simulated/lathe-1', { machine: 'lathe-1', seed: 4 })
    await act('lathe-1', { do: 'jog', axis: 'Z', by: -1 })
    expect(((await demo.ask('GET', '/api/simulated/lathe-1')).body as Seen).view.positions.Z).toBe(-1)
    await demo.ask('PUT', '/api/simulated/lathe-1', { machine: 'lathe-1', seed: 4 })
    expect(((await demo.ask('GET', '/api/simulated/lathe-1')).body as Seen).view.positions.Z).toBe(0)
    const off = await demo.ask('GET', '/api/simulated/never')
    expect([off.status, off.body]).toMatchObject([404, { error: { code: 'switched-off' } }])
    for (const body of [
      { machine: 'mill-9' },
      { exercise: 'nothing', unit: 'inch' },
      { exercise: 'pallets', unit: 'inch' },
      {},
    ])
      expect((await demo.ask('PUT', '/api/simulated/never', body)).status).toBeGreaterThan(399)
    for (const action of [
      { do: 'fly' },
      { do: 'jog', axis: 'X', by: 1e9 },
      { do: 'wheel', axis: 'Q', step: 1, clicks: 1 },
    ])
      expect((await demo.ask('POST', '/api/simulated/lathe-1/actions', { actions: [action] })).status).toBe(
        422,
      )
  })

  it('puts out none that is worked at for another; one that nobody looks at gives its place', async () => {
    const many = (n: number) =>
      demo.ask('PUT', `/api/simulated/many-${n}`, { machine: 'mill-1', seed: n + 1 })
    const on: number[] = []
    for (let n = 0; n < 61; n++) {
      demo.pass(1)
      if ((await many(n)).status === 200) on.push(n)
    }
    const refused = await many(61)
    expect([refused.status, (refused.body as ProblemBody).error.code]).toEqual([503, 'all-taken'])
    for (const n of on) expect((await demo.ask('GET', `/api/simulated/many-${n}`)).status).toBe(200)
    demo.pass(11 * 60)
    for (const n of on.slice(1)) await demo.ask('GET', `/api/simulated/many-${n}`)
    expect((await many(61)).status).toBe(200)
    // Those that were worked at are on; of the others one made room.
    for (const n of on.slice(1)) expect((await demo.ask('GET', `/api/simulated/many-${n}`)).status).toBe(200)
  })
})

describe('answers to exercises', () => {
  const answer = (more: object) =>
    demo.ask('POST', '/api/practice', {
      id: ulid(),
      by: 'RT',
      unit: 'inch',
      seed: 5,
      machine: null,
      answers: {},
      hints: 0,
      seconds: 61,
      ...more,
    })

  it('are judged against what is hidden, beside what a good hand does, and are kept', async () => {
    const exercise = EXERCISES.find(({ id }) => id === 'corner-probe')
    if (!exercise) throw new Error('no exercise')
    await demo.ask('PUT', '/api/simulated/p-1', { exercise: 'corner-probe', unit: 'inch', seed: 5 })
    demo.pass(90)
    const { answers } = goodHandAt(exercise, 5, 'inch')
    const id = ulid()
    const given = { exercise: 'corner-probe', machine: 'p-1', answers, id, hints: 2 }
    const { body } = await answer(given)
    const { result, kept } = body as { result: PracticeResult; kept: boolean }
    expect([kept, result.good, result.seconds, result.hints]).toEqual([true, true, 90, 2])
    expect(result.figures.map(({ error }) => error)).toEqual(result.goodHand.errors)
    // Sent twice, it is kept once.
    await answer(given)
    const { results } = (await demo.ask('GET', '/api/practice')).body as { results: PracticeResult[] }
    expect(results.filter((each) => each.id === id)).toHaveLength(1)
    const off = (await answer({ exercise: 'corner-probe', machine: 'p-1', answers: { ...answers, X: '-1' } }))
      .body as {
      result: PracticeResult
    }
    expect(off.result).toMatchObject({ good: false, figures: [{ good: false }, { good: true }] })
  })

  it('on paper need no machine; what is not understood or belongs elsewhere is refused with a sentence', async () => {
    const paper = await answer({
      exercise: 'pallets',
      answers: EXERCISES.find(({ id }) => id === 'pallets')?.byGoodHand(null, 5, 'inch').answers,
    })
    expect(paper.body).toMatchObject({ result: { good: true, seconds: 61 } })
    const refusals = await Promise.all([
      answer({ exercise: 'pallets', answers: { table1: 'x' } }),
      answer({ exercise: 'corner-probe', answers: { X: '1', Y: '1' } }),
      answer({ exercise: 'corner-sensor', machine: 'p-1', answers: { X: '1', Y: '1' } }),
      answer({ exercise: 'nothing', answers: {} }),
      answer({ exercise: 'pallets', by: '', answers: {} }),
    ])
    expect(refusals.map(({ status }) => status)).toEqual([422, 409, 409, 404, 422])
  })
})
