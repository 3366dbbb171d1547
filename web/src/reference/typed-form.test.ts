import { demoReference } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { describe, expect, it } from 'vitest'
import { MACHINE_NUMBERS, type MachineForm, machineResolver } from './machine-form.ts'
import { toTyped } from './typed-form.ts'

const mill = demoReference.machines[0] as Machine
const typed = toTyped(mill, MACHINE_NUMBERS)
const read = async (change: Partial<MachineForm>) =>
  machineResolver({ ...typed, ...change }, undefined, { fields: {}, shouldUseNativeValidation: false })

describe('the form of a machine', () => {
  it('gives back the machine that it was opened from', async () => {
    expect(await read({})).toEqual({ values: mill, errors: {} })
  })

  it('reads lengths as they are typed, in the unit of the machine', async () => {
    const { axes } = typed
    const { values } = await read({
      leastStep: '1/10000',
      axes: { ...axes, X: { least: '-762mm', greatest: '0' } },
    })
    expect(values).toMatchObject({ leastStep: 0.0001, axes: { X: { least: -30 } } })
  })

  it('says at the field what is wrong, and keeps the rest', async () => {
    const { axes } = typed
    const { values, errors } = await read({
      leastStep: 'abc',
      axes: { ...axes, Y: { least: '1..2', greatest: '0' } },
    })
    expect(values).toEqual({})
    expect(errors.leastStep?.message).toMatch(/not a length/)
    expect(errors.axes?.Y?.least?.message).toMatch(/two decimal points/)
    expect((await read({ name: ' ' })).errors.name?.message).toMatch(/name/)
    expect((await read({ leastStep: '0' })).errors.leastStep?.message).toMatch(/more than zero/)
  })

  it('reads what stands round the table line by line, and says in which line something is wrong', async () => {
    const obstacle = { name: 'door', side: 'front' as const, bottom: '0', top: '30', comesDownWithZ: false }
    const around = (at: string) => ({ tableDepth: '14', obstacles: [{ ...obstacle, at }] })
    const { values } = await read({ around: around('-4-5/8') })
    expect(values).toMatchObject({ around: { obstacles: [{ at: -4.625, top: 30 }] } })
    const { errors } = await read({ around: around('near') })
    expect(errors.around?.obstacles?.[0]?.at?.message).toMatch(/not a length/)
    const noY = await read({ kind: 'lathe' })
    expect(noY.errors.axes?.Y?.message).toMatch(/a lathe has none/)
  })
})
