import {
  type Address,
  CONTRACT,
  type Contract,
  entry,
  problemBody,
  ROUTES,
  ROW_ROUTES,
  type RouteName,
  type RowRouteName,
  rowContract,
  rowOf,
  unreadEntry,
} from '@dogleg/core/api'
import { KINDS, NOUNS, rowKind } from '@dogleg/core/setup'
import type { z } from 'zod'
import {
  createDocument,
  type ZodOpenApiObject,
  type ZodOpenApiOperationObject,
  type ZodOpenApiPathsObject,
} from 'zod-openapi'

const json = (schema: z.ZodType) => ({ 'application/json': { schema } })
const events = (schema: z.ZodType) => ({ 'text/event-stream': { schema } })
const titled = (name: string) => `${name.charAt(0).toUpperCase()}${name.slice(1)}`

const operation = (
  name: string,
  { says, params, query, body, answer, status, stream }: Contract,
): ZodOpenApiOperationObject => ({
  operationId: name,
  summary: says,
  requestParams: { ...(params ? { path: params } : {}), ...(query ? { query } : {}) },
  ...(body ? { requestBody: { required: true, content: json(body) } } : {}),
  responses: {
    [status ?? 200]: { description: 'The answer.', content: (stream ? events : json)(answer) },
    default: { description: 'A refusal, with a sentence for a person.', content: json(problemBody) },
  },
})

/** Every route with what it is called and its contract: those of the rows once for every noun. */
export function* everyRoute(): Generator<{ name: string; address: Address; contract: Contract }> {
  for (const [name, address] of Object.entries(ROUTES) as [RouteName, Address][])
    yield { name, address, contract: CONTRACT[name] }
  for (const noun of NOUNS)
    for (const [name, [method, path]] of Object.entries(ROW_ROUTES) as [RowRouteName, Address][])
      yield {
        name: `${name}-${noun}`,
        address: [method, path.replace(':noun', noun)],
        contract: rowContract(noun)[name],
      }
}

/** What this server is asked and what it answers, as OpenAPI 3.1, for whoever wants to connect something to it. */
export function describeApi() {
  const paths: ZodOpenApiPathsObject = {}
  for (const { name, address, contract } of everyRoute()) {
    const [method, path] = address
    const at = path.replace(/:(\w+)/g, '{$1}')
    paths[at] = { ...paths[at], [method.toLowerCase()]: operation(name, contract) }
  }
  const document = {
    openapi: '3.1.1',
    info: {
      title: 'Dogleg',
      version: '1',
      description:
        'Lengths are in the unit that stands beside them (inch or mm), angles in degrees, times in UTC. What is sent is JSON. A simulated machine also publishes /simulated/{id}/probe, current and sample as MTConnect has them.',
    },
    paths,
    components: {
      schemas: {
        Problem: problemBody,
        Entry: entry,
        UnreadEntry: unreadEntry,
        ...Object.fromEntries(KINDS.map(({ kind, schema }) => [`Entry.${kind}`, schema])),
        ...Object.fromEntries(NOUNS.map((noun) => [titled(rowKind(noun).one), rowOf(noun)])),
      },
    },
  } satisfies ZodOpenApiObject
  return createDocument(document, {
    // A later version may answer more: whoever reads it passes over what they do not know.
    override: ({ jsonSchema, io }) => {
      if (io === 'output' && jsonSchema.additionalProperties === false) delete jsonSchema.additionalProperties
    },
  })
}
