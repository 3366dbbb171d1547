import { z } from 'zod'
import { initials } from '../log/index.ts'
import type { Noun, Row } from '../setup/index.ts'
import { type Contract, type RowList, type RowVersion, rowList, rowOf, rowVersions } from './parts.ts'
import type { RowRouteName } from './routes.ts'

const one = z.object({ id: z.string() })
const saidBy = z.object({ by: initials.optional().describe('whoever does it') })

/** What is asked about the rows of one noun, and what is answered. An edit names the version that it was made from, and becomes the next one. */
export const rowContract = (name: Noun) =>
  ({
    rows: { says: `All ${name}, the newest version of each.`, answer: rowList(name) },
    addRow: {
      says: `Adds one of the ${name}; sent twice it is one.`,
      query: saidBy,
      body: rowOf(name),
      door: true,
      answer: rowOf(name),
      status: 201,
    },
    saveRow: {
      says: `Saves one of the ${name}, from the version that was opened; refused where somebody else was quicker.`,
      params: one,
      query: saidBy,
      body: rowOf(name),
      door: true,
      answer: rowOf(name),
    },
    rowVersions: {
      says: `Every version of one of the ${name}, the newest first.`,
      params: one,
      answer: rowVersions(name),
    },
    retireRow: {
      says: `Retires one of the ${name}, or brings it back. It is named where old setups used it, and not offered any more.`,
      params: one,
      query: saidBy,
      body: z.object({ retired: z.boolean() }),
      answer: z.object({ id: z.string(), retired: z.boolean() }),
    },
  }) as const satisfies Record<RowRouteName, Contract>

/** What is answered about the rows of a noun. */
export interface RowAnswers<Name extends Noun> {
  rows: RowList<Name>
  addRow: Row<Name>
  saveRow: Row<Name>
  rowVersions: { versions: RowVersion<Name>[] }
  retireRow: { id: string; retired: boolean }
}
