import { z } from 'zod'
import { type Finding, finding } from '../fact/index.ts'
import { convertLength, formatWithUnit, type LengthUnit, readRows, typedLength } from '../quantity/index.ts'

const compared = z.object({
  name: z.string().min(1).max(20),
  measured: typedLength,
  drawing: typedLength,
  within: typedLength.refine(({ value }) => value > 0, { error: 'Within how much: more than zero.' }),
  turned: typedLength.optional().describe('what it would be on a part the other way round'),
})

/** Distances between features that tell whether it is the right part, the right way round. */
export const identification = z.object({ distances: z.array(compared).min(1).max(20) })
export type Identification = z.infer<typeof identification>

export type IdentifiedAs = 'right' | 'turned' | 'wrong'

export interface ComparedDistance {
  name: string
  measured: number
  drawing: number
  within: number
  /** Measured less drawing. */
  off: number
  fits: boolean
  fitsTurned: boolean
}

export interface Identified {
  as: IdentifiedAs
  distances: ComparedDistance[]
  findings: Finding[]
}

export type IdentificationRead =
  | { ok: true; value: Identification }
  | { ok: false; empty: boolean; says: string }

const NEEDS =
  'A line for each distance: a name, measured, drawing, within; and what it is on a part turned round.'

/** Reads the list: `A-B 2.0004 2.000 .005`, with a fifth number for a part that is the other way round. */
export function readIdentification(text: string, unit: LengthUnit): IdentificationRead {
  const short = ['MEASURED', 'DRAWING', 'WITHIN']
  const distances: unknown[] = []
  const lines = text.split(/\r\n|\r|\n/).filter((line) => line.trim() !== '')
  if (lines.length === 0) return { ok: false, empty: true, says: NEEDS }
  for (const [index, line] of lines.entries()) {
    const told = (says: string) => ({
      ok: false as const,
      empty: false,
      says: says.replace('Line 1', `Line ${index + 1}`),
    })
    const full = readRows(line, unit, { columns: [...short, 'TURNED'], needs: NEEDS, least: 1 })
    const read = full.ok ? full : readRows(line, unit, { columns: short, needs: NEEDS, least: 1 })
    if (!read.ok) return told(read.says)
    const [row] = read.rows
    const [measured, drawing, within, turned] = row?.cells ?? []
    distances.push({
      name: row?.name ?? `distance ${index + 1}`,
      measured,
      drawing,
      within,
      ...(turned ? { turned } : {}),
    })
  }
  const whole = identification.safeParse({ distances })
  if (whole.success) return { ok: true, value: whole.data }
  const issue = whole.error.issues[0]
  const at = issue?.path[1]
  return {
    ok: false,
    empty: false,
    says: `${typeof at === 'number' ? `Line ${at + 1}: ` : ''}${issue?.message ?? ''}`,
  }
}

/** Whether the distances are those of the drawing, or of the part turned round, or of neither. Common practice. */
export function identify({ distances }: Identification, unit: LengthUnit): Identified {
  const findings: Finding[] = []
  const compared = distances.map((each): ComparedDistance => {
    const value = (of: { value: number; unit: LengthUnit }) => convertLength(of.value, of.unit, unit)
    const [measured, drawing, within] = [value(each.measured), value(each.drawing), value(each.within)]
    const turned = each.turned && value(each.turned)
    const slack = 1e-9
    const fits = Math.abs(measured - drawing) <= within + slack
    if (turned !== undefined && Math.abs(turned - drawing) <= 2 * within)
      findings.push(
        finding(
          'look',
          'cannot-tell',
          each.name,
          `${each.name} cannot tell a part that is turned round.`,
          `It is ${formatWithUnit(drawing, unit)} one way and ${formatWithUnit(turned, unit)} the other: nearer than what is allowed on both sides.`,
          'Choose a distance that differs more, or allow less.',
        ),
      )
    return {
      name: each.name,
      measured,
      drawing,
      within,
      off: measured - drawing,
      fits,
      fitsTurned: turned !== undefined && Math.abs(measured - turned) <= within + slack,
    }
  })
  const off = compared.filter(({ fits }) => !fits)
  const as: IdentifiedAs =
    off.length === 0 ? 'right' : off.every(({ fitsTurned }) => fitsTurned) ? 'turned' : 'wrong'
  if (as === 'turned')
    findings.push(
      finding(
        'stop',
        'turned-round',
        off[0]?.name ?? '',
        'The part lies the other way round.',
        `${off.map(({ name }) => name).join(', ')} ${off.length > 1 ? 'are' : 'is'} as on a part turned round.`,
        'Turn it over, and take the zeros again.',
      ),
    )
  if (as === 'wrong')
    findings.push(
      ...off.map(({ name, off: by, within }) =>
        finding(
          'stop',
          'wrong-part',
          name,
          `${name} is off by ${formatWithUnit(by, unit, { plus: true })}; ${formatWithUnit(within, unit)} is allowed.`,
          'The wrong part, another operation missing, or a feature that was taken for another.',
          'Look at the part and the drawing before anything is cut.',
        ),
      ),
    )
  return { as, distances: compared, findings }
}
