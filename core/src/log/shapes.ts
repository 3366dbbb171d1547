import type { z } from 'zod'

/** What is stored is kept as it was written; a step leads from each older shape of it to the next. */
export interface Shaped {
  /** The number of today's shape; the first is 1. */
  shape: number
  /** From each older shape to the one after it, the first first. What it cannot read, it throws at. */
  upcast: readonly ((older: Readonly<Record<string, unknown>>) => object)[]
}

/** The shape that a schema says, and whether there is a step from each one before it. */
export function shapeOf(name: string, schema: z.ZodObject, upcast: Shaped['upcast']): number {
  const { shape } = schema.shape as { shape?: z.ZodLiteral<number> }
  const said = shape?.value ?? 1
  if (said !== upcast.length + 1)
    throw new Error(`${name} is in shape ${said} and has ${upcast.length} older ones.`)
  return said
}

export type Raised = { ok: true; data: object } | { ok: false; why: 'newer' | 'damaged'; says: string }

/** Brings data into the shape of today, without looking whether it is sound there. `name` is what it is: 'a "pickup"'. */
export function raised(
  data: Readonly<Record<string, unknown>>,
  name: string,
  { shape: today, upcast }: Shaped,
): Raised {
  const shape = data.shape ?? 1
  if (typeof shape !== 'number' || !Number.isInteger(shape) || shape < 1)
    return { ok: false, why: 'damaged', says: 'It does not say which shape it has. (shape)' }
  if (shape > today)
    return {
      ok: false,
      why: 'newer',
      says: `${name} of shape ${shape} is not known here, only up to ${today}. (shape)`,
    }
  if (shape === today) return { ok: true, data }
  try {
    let body: object = data
    for (const step of upcast.slice(shape - 1)) body = step(body as Record<string, unknown>)
    return { ok: true, data: { ...body, shape: today } }
  } catch {
    return { ok: false, why: 'damaged', says: `It is not ${name} of shape ${shape}. (shape)` }
  }
}

/** What is wrong with data, by the first thing that its schema has against it. */
export function issueIn({ issues: [issue] }: z.ZodError): string {
  const where = issue?.path.join('.')
  return `${issue?.message ?? 'Not understood.'}${where ? ` (${where})` : ''}`
}

export const isObject = (data: unknown): data is Record<string, unknown> =>
  typeof data === 'object' && data !== null && !Array.isArray(data)
