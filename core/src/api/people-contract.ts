import { z } from 'zod'
import { initials } from '../log/index.ts'
import {
  letInCode,
  locksAfter,
  may,
  newPin,
  person,
  personName,
  tablet,
  tabletName,
  typedPin,
} from '../people/index.ts'
import type { Contract } from './parts.ts'

const time = z.iso.datetime({ precision: 3 })
const one = z.object({ id: z.string() })

const session = z.object({
  signs: z.boolean().describe('whether people sign in here: on a network it is the rule'),
  tablet: z
    .object({ id: z.string(), name: z.string(), machine: z.string().exactOptional(), locksAfter })
    .exactOptional()
    .describe('left out where this one was not let in, or nobody signs in'),
  person: z
    .object({ initials: z.string(), name: z.string(), may })
    .exactOptional()
    .describe('who is at it; left out where nobody is'),
  sitting: z
    .string()
    .exactOptional()
    .describe('names this stay of theirs at the tablet: what they record is signed by it'),
})

const people = z.object({ people: z.array(person) })
const tablets = z.object({ tablets: z.array(tablet) })

/** What is asked about the people of the shop, their tablets, and who is at this one. */
export const PEOPLE_CONTRACT = {
  session: {
    says: 'Whether people sign in here, whether this tablet is let in, and who is at it.',
    answer: session,
  },
  letIn: {
    says: 'Lets this tablet in, by a code that a lead has made for it; it gets its key in a cookie.',
    small: true,
    body: z.object({ code: letInCode, name: tabletName }),
    answer: session,
    status: 201,
  },
  signIn: {
    says: 'Signs somebody in at this tablet; whoever was at it before leaves it.',
    small: true,
    body: z.object({
      by: initials,
      pin: typedPin,
      since: time
        .optional()
        .describe('from when on they were at it, where the server was away then: entries since are theirs'),
      over: z
        .literal(true)
        .optional()
        .describe('they have left again: it is only for what they recorded, and nobody else leaves'),
    }),
    answer: session.extend({ signed: z.string().describe('the sitting that was begun') }),
    status: 201,
  },
  signOut: {
    says: 'Whoever is at this tablet leaves it; with a sitting named, only if it is that one.',
    small: true,
    body: z.object({ sitting: z.string().max(40).optional() }),
    answer: session,
  },
  changePin: {
    says: 'Changes the PIN of whoever is at this tablet.',
    small: true,
    body: z.object({ pin: typedPin, next: newPin }),
    answer: z.object({ changed: z.literal(true) }),
  },
  people: { says: 'The people of the shop.', answer: people },
  addPerson: {
    says: 'Adds somebody to the people of the shop.',
    small: true,
    body: z.object({ id: z.ulid(), initials, name: personName, may, pin: newPin }),
    answer: people,
    status: 201,
  },
  savePerson: {
    says: 'Changes what somebody is called and may do, sets a new PIN, or ends their being here; initials stay.',
    params: one,
    small: true,
    body: z.object({ name: personName, may, gone: z.boolean(), pin: newPin.optional() }),
    answer: people,
  },
  tablets: { says: 'The tablets that were let in.', answer: tablets },
  newCode: {
    says: 'Makes a code by which one tablet is let in.',
    small: true,
    body: z.object({}),
    answer: z.object({
      code: z.string(),
      until: time.describe('it is good until then, or until it was used'),
      addresses: z
        .array(z.string())
        .describe('where others reach this server, by the names that it was told'),
    }),
    status: 201,
  },
  saveTablet: {
    says: 'Names a tablet, says where it hangs and when it locks, or shuts it out at once.',
    params: one,
    small: true,
    body: z.object({
      name: tabletName,
      machine: z.string().max(40).optional(),
      locksAfter,
      out: z.boolean(),
    }),
    answer: tablets,
  },
} as const satisfies Record<string, Contract>
