import type { May, Person } from '@dogleg/core/people'
import { sameInitials } from '@dogleg/core/people'
import { and, asc, desc, eq, isNull } from 'drizzle-orm'
import type { Reader, Writer } from '../database/connect.ts'
import { codes, people, pins, sittings, tabletKeys, tablets } from '../database/schema.ts'
import { hashOf } from './secrets.ts'

type StoredPerson = typeof people.$inferSelect
type StoredTablet = typeof tablets.$inferSelect
export type Sitting = typeof sittings.$inferSelect

const lastOfEach = <Row extends { id: string }>(rows: readonly Row[]): Row[] => [
  ...new Map(rows.map((row) => [row.id, row])).values(),
]

/** Who is at which tablet, by that, while the file takes nothing: they may look. Gone with the server. */
export type SpareStays = Map<string, Sitting>

/** The people of the shop, their tablets, and who was at which. */
export function peopleStore(db: Reader, spare: SpareStays = new Map()) {
  const everybody = async (): Promise<StoredPerson[]> =>
    lastOfEach(await db.select().from(people).orderBy(asc(people.seq)))
  const personById = async (id: string): Promise<StoredPerson | undefined> =>
    (await db.select().from(people).where(eq(people.id, id)).orderBy(desc(people.seq)).limit(1))[0]
  const byInitials = async (initials: string): Promise<StoredPerson | undefined> =>
    (await everybody()).find((each) => sameInitials(each.initials, initials))
  const pinOf = async (person: string): Promise<string | undefined> =>
    (await db.select().from(pins).where(eq(pins.person, person)))[0]?.hash
  /** As a lead sees them, in the order of their initials. */
  const told = async (): Promise<Person[]> => {
    const withPin = new Set((await db.select({ person: pins.person }).from(pins)).map(({ person }) => person))
    return (await everybody())
      .map(({ id, initials, name, may, gone }) => ({
        id,
        initials,
        name,
        may,
        ...(gone ? { gone: true as const } : {}),
        pin: withPin.has(id),
      }))
      .sort((a, b) => a.initials.localeCompare(b.initials))
  }
  /** Leads who can sign in. */
  const leads = async (): Promise<Person[]> =>
    (await told()).filter(({ may, gone, pin }) => may === 'lead' && !gone && pin)

  const allTablets = async (): Promise<StoredTablet[]> =>
    lastOfEach(await db.select().from(tablets).orderBy(asc(tablets.seq)))
  const tabletById = async (id: string): Promise<StoredTablet | undefined> =>
    (await db.select().from(tablets).where(eq(tablets.id, id)).orderBy(desc(tablets.seq)).limit(1))[0]
  /** The tablet that has a key; undefined where none has, or it was shut out. */
  const tabletByKey = async (key: string): Promise<StoredTablet | undefined> => {
    const [known] = await db
      .select()
      .from(tabletKeys)
      .where(eq(tabletKeys.hash, hashOf(key)))
    const found = known && (await tabletById(known.tablet))
    return found?.out ? undefined : found
  }

  /** The sitting that is open at a tablet, the last that was begun. */
  const openAt = async (tablet: string): Promise<Sitting | undefined> =>
    spare.get(tablet) ??
    (
      await db
        .select()
        .from(sittings)
        .where(and(eq(sittings.tablet, tablet), isNull(sittings.ended)))
        .orderBy(desc(sittings.began))
        .limit(1)
    )[0]
  const allOpen = async (): Promise<Sitting[]> => db.select().from(sittings).where(isNull(sittings.ended))
  const sittingById = async (id: string): Promise<Sitting | undefined> =>
    (await db.select().from(sittings).where(eq(sittings.id, id)))[0]

  const codeStands = async (code: string) =>
    (
      await db
        .select()
        .from(codes)
        .where(eq(codes.hash, hashOf(code)))
    )[0]

  return {
    everybody,
    personById,
    byInitials,
    pinOf,
    told,
    leads,
    allTablets,
    tabletById,
    tabletByKey,
    spare,
    openAt,
    allOpen,
    sittingById,
    codeStands,
  }
}
export type PeopleStore = ReturnType<typeof peopleStore>

/** Who changes something, by initials where anybody is signed in, and when, in ms since 1970. */
export interface ChangedBy {
  by?: string | undefined
  at: number
}

/** What is kept of somebody. */
export interface PersonNow {
  id: string
  initials: string
  name: string
  may: May
  gone: boolean
}

/** Adds a version of somebody, in the transaction that is open. */
export async function savePerson(
  tx: Writer,
  { id, initials, name, may, gone }: PersonNow,
  { by, at }: ChangedBy,
) {
  await tx.insert(people).values({ id, initials, name, may, gone, by: by ?? null, at })
}

/** Keeps a PIN in the place of the one before. */
export async function savePin(tx: Writer, person: string, hash: string) {
  await tx.insert(pins).values({ person, hash }).onConflictDoUpdate({ target: pins.person, set: { hash } })
}

export interface TabletNow {
  id: string
  name: string
  machine: string | null
  locksAfter: number
  out: boolean
}

/** Adds a version of a tablet, in the transaction that is open. */
export async function saveTablet(
  tx: Writer,
  { id, name, machine, locksAfter, out }: TabletNow,
  { by, at }: ChangedBy,
) {
  await tx.insert(tablets).values({ id, name, machine, locksAfter, out, by: by ?? null, at })
}

export async function giveKey(tx: Writer, tablet: string, key: string) {
  await tx.insert(tabletKeys).values({ hash: hashOf(key), tablet })
}

/** Keeps a code, or says until when it is good: 0 for no longer. */
export async function saveCode(tx: Writer, code: string, until: number, by: string | undefined) {
  const row = { hash: hashOf(code), until, by: by ?? null }
  await tx.insert(codes).values(row).onConflictDoUpdate({ target: codes.hash, set: { until } })
}

/** Keeps a sitting, or that it has ended. */
export async function saveSitting(tx: Writer, sitting: Sitting) {
  await tx
    .insert(sittings)
    .values(sitting)
    .onConflictDoUpdate({ target: sittings.id, set: { ended: sitting.ended } })
}

/** Which stays are meant: those of a tablet, of a person, or one. */
export interface WhichStays {
  tablet?: string
  person?: string
  sitting?: string | undefined
}

/** Ends the stays that are meant and still open; the tablets that were left. */
export async function endSittings(tx: Writer, of: WhichStays, at: number, but?: string): Promise<string[]> {
  const left: string[] = []
  for (const open of await peopleStore(tx).allOpen()) {
    const meant =
      open.id !== but &&
      (of.tablet === undefined || open.tablet === of.tablet) &&
      (of.person === undefined || open.person === of.person) &&
      (of.sitting === undefined || open.id === of.sitting)
    if (!meant) continue
    await saveSitting(tx, { ...open, ended: Math.max(at, open.began) })
    left.push(open.tablet)
  }
  return left
}
