import { demoReference } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { describe, expect, it } from 'vitest'
import { type MachineForm, machineResolver, toForm } from './machine-form.ts'

const mill = demoReference.machines[0] as Machine
const read = async (change: Partial<MachineForm>) =>
  machineResolver(mill)({ ...toForm(mill), ...change }, undefined, {
    fields: {},
    shouldUseNativeValidation: false,
  })

describe('the form of a machine', () => {
  it('gives back the machine that it was opened from', async () => {
    expect(await read({})).toEqual({ values: mill, errors: {} })
  })

  it('reads lengths as they are typed, in the unit of the machine', async () => {
    const { axes } = toForm(mill)
    const { values } = await read({
      leastStep: '1/10000',
      axes: { ...axes, X: { least: '-762mm', greatest: '0' } },
    })
    expect(values).toMatchObject({ leastStep: 0.0001, axes: { X: { least: -30 } } })
  })

  it('says at the field what is wrong, and keeps the rest', async () => {
    const { axes } = toForm(mill)
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
})
