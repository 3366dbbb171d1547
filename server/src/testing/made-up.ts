import * as fc from 'fast-check'
import { z } from 'zod'

/** A JSON schema, as far as the contract's are made of it. */
interface Schema {
  type?: string | string[]
  const?: unknown
  enum?: unknown[]
  anyOf?: Schema[]
  oneOf?: Schema[]
  allOf?: Schema[]
  properties?: Record<string, Schema>
  required?: string[]
  additionalProperties?: Schema | boolean
  propertyNames?: Schema
  items?: Schema | boolean
  prefixItems?: Schema[]
  minItems?: number
  maxItems?: number
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  exclusiveMaximum?: number
  minLength?: number
  maxLength?: number
  pattern?: string
  format?: string
  $ref?: string
}

/** What nobody would send: wrong types, odd texts, numbers that are none, names of the language itself. */
const ODD: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    true,
    '',
    '\u0000',
    '../../etc',
    "' or 1=1 --",
    '\ud800',
    '__proto__',
    '9'.repeat(400),
    -1,
    1e308,
    2 ** 53,
    [],
    {},
    { __proto__: null, constructor: 1 },
  ),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.integer(),
  fc.jsonValue({ maxDepth: 3 }),
)

const TIMES = fc
  .integer({ min: Date.UTC(2019, 0), max: Date.UTC(2030, 0) })
  .map((ms) => new Date(ms).toISOString())

function textFor({ pattern, format, minLength = 0, maxLength = 60 }: Schema): fc.Arbitrary<string> {
  if (format === 'date-time' || pattern?.includes('T(?:')) return TIMES
  if (pattern !== undefined)
    try {
      return fc.stringMatching(new RegExp(pattern)).filter((text) => text.length <= 400)
    } catch {
      return fc.string({ maxLength: 40 })
    }
  return fc.string({
    minLength: Math.min(minLength, 60),
    maxLength: Math.min(Math.max(maxLength, minLength), 80),
  })
}

/** A whole number of a range, and now and then a part of one: both in the range that the schema says. */
function numberFor(schema: Schema): fc.Arbitrary<number> {
  const least = Math.max(-1e6, schema.minimum ?? schema.exclusiveMinimum ?? -1000)
  const most = Math.max(least, Math.min(1e9, schema.maximum ?? schema.exclusiveMaximum ?? least + 2000))
  const whole = fc.integer({ min: Math.ceil(least), max: Math.max(Math.ceil(least), Math.floor(most)) })
  return schema.type === 'integer'
    ? whole
    : fc.oneof(
        whole,
        fc.integer({ min: 0, max: 1000 }).map((part) => least + ((most - least) * part) / 1000),
      )
}

/** Values that fit a schema, but that here and there something odd stands in the place of a part. */
function valuesOf(root: Schema, schema: Schema, depth: number): fc.Arbitrary<unknown> {
  const inner = (of: Schema) => valuesOf(root, of, depth + 1)
  const fitting = (): fc.Arbitrary<unknown> => {
    if (depth > 9) return fc.constant(null)
    if (schema.$ref !== undefined) {
      const of = schema.$ref
        .replace(/^#\/?/, '')
        .split('/')
        .filter(Boolean)
        .reduce<unknown>((at, part) => (at as Record<string, unknown>)?.[part], root) as Schema | undefined
      return of ? inner(of) : ODD
    }
    if (schema.const !== undefined) return fc.constant(schema.const)
    if (schema.enum) return fc.constantFrom(...schema.enum)
    const some = schema.anyOf ?? schema.oneOf
    if (some) return fc.oneof(...some.map(inner))
    if (schema.allOf)
      return fc.tuple(...schema.allOf.map(inner)).map((all) => Object.assign({}, ...(all as object[])))
    const type = Array.isArray(schema.type) ? schema.type[0] : schema.type
    if (type === 'object') {
      const named = Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([name, of]) => [name, inner(of)]),
      )
      const more =
        typeof schema.additionalProperties === 'object' && Object.keys(named).length === 0
          ? fc.dictionary(fc.string({ maxLength: 10 }), inner(schema.additionalProperties), { maxKeys: 3 })
          : fc.constant({})
      const required = (schema.required ?? []).filter((name) => name in named)
      return fc
        .tuple(fc.record(named, { requiredKeys: required as never[] }), more)
        .map(([known, others]) => ({ ...(others as object), ...(known as object) }))
    }
    if (type === 'array') {
      if (schema.prefixItems) return fc.tuple(...schema.prefixItems.map(inner))
      const least = Math.min(schema.minItems ?? 0, 20)
      const item = typeof schema.items === 'object' ? inner(schema.items) : ODD
      return fc.array(item, {
        minLength: least,
        maxLength: Math.max(least, Math.min(schema.maxItems ?? 3, 3)),
      })
    }
    if (type === 'string') return textFor(schema)
    if (type === 'integer' || type === 'number') return numberFor({ ...schema, type })
    if (type === 'boolean') return fc.boolean()
    if (type === 'null') return fc.constant(null)
    return ODD
  }
  return fc.oneof({ arbitrary: fitting(), weight: 60 }, { arbitrary: ODD, weight: depth === 0 ? 6 : 1 })
}

const known = new Map<z.ZodType, fc.Arbitrary<unknown>>()

/** What fits a schema of the contract, or nearly: made from the schema itself. */
export function madeUp(schema: z.ZodType): fc.Arbitrary<unknown> {
  const before = known.get(schema)
  if (before) return before
  const json = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any', reused: 'ref' }) as Schema
  const made = valuesOf(json, json, 0)
  known.set(schema, made)
  return made
}
