import { z } from 'zod'
import { type EngraveDraft, engraveForm, newEngraving } from '../cycles/engraving/index.ts'
import { type GrooveDraft, grooveForm, newGroove } from '../cycles/grooving/index.ts'
import { newTap, type TapDraft, tapForm } from '../cycles/tapping/index.ts'
import { newWrap, type WrapDraft, wrapForm } from '../cycles/wrapping/index.ts'
import type { DraftRead, LengthUnit } from '../quantity/index.ts'

/** The cycles that a program can be built from. */
export type CycleName = 'tap' | 'groove' | 'engrave' | 'wrap'

export const CYCLE_NAMES: Record<CycleName, string> = {
  tap: 'Tapped holes',
  groove: 'Groove',
  engrave: 'Engraving',
  wrap: 'Wrapped',
}

/** Cycles that there are for a kind of machine. */
export const cyclesOf = (kind: 'mill' | 'lathe'): readonly CycleName[] =>
  kind === 'mill' ? ['tap', 'engrave', 'wrap'] : ['groove', 'tap']

/** Cycles in one program. */
export const MOST_ITEMS = 40

const itemOf = <Name extends CycleName, P extends z.ZodType>(cycle: Name, params: P) =>
  z.object({ cycle: z.literal(cycle), id: z.string().min(1).max(40), off: z.boolean(), params })

const head = {
  title: z.string().trim().min(1, 'Give the program a name.').max(60, 'Keep the name under 60 characters.'),
  number: z
    .int('Write a whole number.')
    .min(1, 'A program number is 1 or more.')
    .max(99999, 'A program number has at most five digits.')
    .describe('of the O word'),
  material: z.string().min(1, 'Choose the material.').max(40),
  turned: z.boolean().describe('turned as the part was measured to lie'),
  partsAShift: z
    .number('Write a number, or nothing.')
    .positive('More than zero, or nothing.')
    .max(1_000_000, 'At most a million parts.')
    .nullable()
    .describe('for what a faster way out is worth'),
}

/** A program as it is kept: cycles in the order in which they run. */
export const cycleSheet = z.object({
  ...head,
  items: z
    .array(
      z.discriminatedUnion('cycle', [
        itemOf('tap', tapForm.params),
        itemOf('groove', grooveForm.params),
        itemOf('engrave', engraveForm.params),
        itemOf('wrap', wrapForm.params),
      ]),
    )
    .max(MOST_ITEMS, `At most ${MOST_ITEMS} cycles.`),
})
export type CycleSheet = z.infer<typeof cycleSheet>
export type Item = CycleSheet['items'][number]

/** A program as it stands in the form: everything as typed, and nothing that was typed is too much to be kept. */
export const sheetDraft = z.object({
  title: z.string().max(60),
  number: z.string().max(6),
  material: z.string().max(40),
  turned: z.boolean(),
  partsAShift: z.string().max(20),
  items: z.array(
    z.discriminatedUnion('cycle', [
      itemOf('tap', tapForm.draft),
      itemOf('groove', grooveForm.draft),
      itemOf('engrave', engraveForm.draft),
      itemOf('wrap', wrapForm.draft),
    ]),
  ),
})
export type SheetDraft = z.infer<typeof sheetDraft>
export type ItemDraft = SheetDraft['items'][number]

/** A new cycle at the end of a program. */
export function newItem(cycle: CycleName, id: string, unit: LengthUnit, lathe: boolean): ItemDraft {
  const head = { id, off: false }
  switch (cycle) {
    case 'tap':
      return { ...head, cycle, params: { ...newTap(unit, lathe), ...(lathe ? { list: '0 0' } : {}) } }
    case 'groove':
      return { ...head, cycle, params: newGroove(unit) }
    case 'engrave':
      return { ...head, cycle, params: newEngraving(unit) }
    case 'wrap':
      return { ...head, cycle, params: newWrap(unit) }
  }
}

function draftOfItem(item: Item): ItemDraft {
  switch (item.cycle) {
    case 'tap':
      return { ...item, params: tapForm.write(item.params) }
    case 'groove':
      return { ...item, params: grooveForm.write(item.params) }
    case 'engrave':
      return { ...item, params: engraveForm.write(item.params) }
    case 'wrap':
      return { ...item, params: wrapForm.write(item.params) }
  }
}

/** The form of a program that was kept. */
export const draftOfSheet = ({
  title,
  number,
  material,
  turned,
  partsAShift,
  items,
}: CycleSheet): SheetDraft => ({
  title,
  number: String(number),
  material,
  turned,
  partsAShift: partsAShift === null ? '' : String(partsAShift),
  items: items.map(draftOfItem),
})

/** What the counter of the control showed was read for the number that stood there then: another number asks for it anew. */
const countedAnew = (item: ItemDraft): ItemDraft =>
  item.cycle === 'engrave' ? { ...item, params: { ...item.params, counter: '' } } : item

/** A cycle with fields of its form changed. */
export function withFields(item: ItemDraft, fields: Readonly<Record<string, string | boolean>>): ItemDraft {
  const next = { ...item, params: { ...item.params, ...fields } } as ItemDraft
  const isOther =
    item.cycle === 'engrave' && fields.serial !== undefined && fields.serial !== item.params.serial
  return isOther && fields.counter === undefined ? countedAnew(next) : next
}

/** The form of a program of an earlier setup of the job: what was read at the control then is not known now. */
export function draftAgain(of: CycleSheet): SheetDraft {
  const draft = draftOfSheet(of)
  return { ...draft, items: draft.items.map(countedAnew) }
}

/** A new program without cycles; of no material where nobody said which. */
export const newSheet = (title: string, number: number, material: string): SheetDraft => ({
  title,
  number: String(number),
  material,
  turned: true,
  partsAShift: '',
  items: [],
})

/** The tools that a cycle uses. */
export function toolsOf({ cycle, params }: Item): number[] {
  if (cycle !== 'tap') return [params.tool]
  return [
    ...(params.chamfer ? [params.chamferTool] : []),
    ...(params.drill ? [params.drillTool] : []),
    ...(params.tapping ? [params.tapTool] : []),
  ]
}

/** How many holes a program makes, counted once each. */
export const holesOf = ({ items }: Pick<CycleSheet, 'items'>) =>
  items.reduce((sum, { cycle, off, params }) => {
    if (off || cycle !== 'tap') return sum
    return (
      sum +
      (params.pattern === 'list'
        ? params.list.points.length
        : params.count * (params.pattern === 'grid' ? params.rows : 1))
    )
  }, 0)

/** What one cycle's form comes to, or what its fields still need. */
export function readItem(item: ItemDraft, unit: LengthUnit): DraftRead<Item['params']> {
  switch (item.cycle) {
    case 'tap':
      return tapForm.read(item.params as TapDraft, unit)
    case 'groove':
      return grooveForm.read(item.params as GrooveDraft, unit)
    case 'engrave':
      return engraveForm.read(item.params as EngraveDraft, unit)
    case 'wrap':
      return wrapForm.read(item.params as WrapDraft, unit)
  }
}

/** How much there is to write, in holes: a letter is half of one, a line of a scale two. For whether it is written off the page. */
export const workOf = (of: Pick<CycleSheet, 'items'>): number =>
  holesOf(of) +
  of.items.reduce((sum, item) => {
    if (item.off) return sum
    if (item.cycle === 'engrave') return sum + item.params.text.length / 2
    if (item.cycle !== 'wrap') return sum
    const { what, divisions, text, slots, holes, rows, program } = item.params
    const work = {
      scale: 2 * divisions,
      text: text.length,
      slots,
      holes: holes * rows,
      program: program.length / 40,
    }
    return sum + work[what]
  }, 0)

export type SheetRead =
  | { ok: true; sheet: CycleSheet }
  /** Cycles that are not complete, by id; and what is wrong with the heading. */
  | { ok: false; items: string[]; says: string }

/** What the form of a program comes to. Cycles that are off need not be complete, and are left out where they are not. */
export function readSheet(draft: SheetDraft, unit: LengthUnit): SheetRead {
  const items: unknown[] = []
  const incomplete: string[] = []
  for (const item of draft.items) {
    const read = readItem(item, unit)
    if (read.ok) items.push({ ...item, params: read.value })
    else if (!item.off) incomplete.push(item.id)
  }
  const { title, material, turned } = draft
  const parts = draft.partsAShift.trim()
  const read = cycleSheet.safeParse({
    title,
    material,
    turned,
    number: Number(draft.number),
    partsAShift: parts === '' ? null : Number(parts),
    items,
  })
  if (incomplete.length > 0) return { ok: false, items: incomplete, says: 'A cycle still needs something.' }
  return read.success
    ? { ok: true, sheet: read.data }
    : { ok: false, items: [], says: read.error.issues[0]?.message ?? 'The program is not complete.' }
}
