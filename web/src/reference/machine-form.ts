import { LINEAR_AXES, type LinearAxis, type Machine, machine as machineSchema } from '@dogleg/core/machine'
import { type LengthUnit, readLength } from '@dogleg/core/quantity'
import type { FieldErrors, Resolver } from 'react-hook-form'

/** A machine as it is typed: lengths are text until they are understood. */
export interface MachineForm {
  name: string
  unit: LengthUnit
  axes: Record<LinearAxis, { least: string; greatest: string }>
  tableMoves: { X: boolean; Y: boolean }
  leastStep: string
  toolLengths: Machine['toolLengths']
  profileId: string
  note: string
}

export const toForm = ({
  name,
  unit,
  axes,
  tableMoves,
  leastStep,
  toolLengths,
  profileId,
  note,
}: Machine): MachineForm => ({
  name,
  unit,
  axes: Object.fromEntries(
    LINEAR_AXES.map((axis) => [
      axis,
      { least: String(axes[axis].least), greatest: String(axes[axis].greatest) },
    ]),
  ) as MachineForm['axes'],
  tableMoves,
  leastStep: String(leastStep),
  toolLengths,
  profileId,
  note,
})

type Wrong = Record<string, { type: string; message: string }>

/** Reads the form into a machine on top of the row that it was opened from; says what is wrong by field path. */
function readForm(values: MachineForm, from: Machine): { row: Machine } | { wrong: Wrong } {
  const wrong: Wrong = {}
  const length = (path: string, text: string) => {
    const entry = readLength(text, values.unit)
    if (!entry.ok) wrong[path] = { type: 'length', message: entry.says }
    return entry.ok ? entry.value : 0
  }
  const axes = Object.fromEntries(
    LINEAR_AXES.map((axis) => [
      axis,
      {
        least: length(`axes.${axis}.least`, values.axes[axis].least),
        greatest: length(`axes.${axis}.greatest`, values.axes[axis].greatest),
      },
    ]),
  )
  const leastStep = length('leastStep', values.leastStep)
  if (Object.keys(wrong).length > 0) return { wrong }
  const read = machineSchema.safeParse({ ...from, ...values, axes, leastStep })
  if (read.success) return { row: read.data }
  for (const { path, message } of read.error.issues) wrong[path.join('.')] = { type: 'schema', message }
  return { wrong }
}

/** Nests `axes.X.least` as react-hook-form wants its errors. */
function nest(wrong: Wrong): FieldErrors<MachineForm> {
  const errors: Record<string, unknown> = {}
  for (const [path, problem] of Object.entries(wrong)) {
    const keys = path.split('.')
    let at = errors
    for (const key of keys.slice(0, -1)) {
      at[key] ??= {}
      at = at[key] as Record<string, unknown>
    }
    at[keys.at(-1) ?? ''] = problem
  }
  return errors as FieldErrors<MachineForm>
}

export const machineResolver =
  (from: Machine): Resolver<MachineForm, unknown, Machine> =>
  (values) => {
    const read = readForm(values, from)
    return 'row' in read ? { values: read.row, errors: {} } : { values: {}, errors: nest(read.wrong) }
  }
