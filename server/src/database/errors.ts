/** SQLite's own code of an error ('SQLITE_FULL'), however deep the driver and the query builder have wrapped it. */
export function sqliteCode(error: unknown): string | undefined {
  for (let at = error; at instanceof Error; at = at.cause)
    if ('code' in at && typeof at.code === 'string' && at.code.startsWith('SQLITE_')) return at.code
  return undefined
}

export const isSqliteError = (error: unknown, ...codes: string[]) => {
  const code = sqliteCode(error)
  return code !== undefined && codes.some((each) => code.startsWith(each))
}

/** An error of SQLite that means that nothing can be written now, though the file can be read. */
export const isUnwritable = (error: unknown) =>
  isSqliteError(error, 'SQLITE_READONLY', 'SQLITE_FULL', 'SQLITE_IOERR', 'SQLITE_CANTOPEN', 'SQLITE_BUSY')

/** An error of SQLite that means that the file is damaged, or none of its own. */
export const isDamage = (error: unknown) => isSqliteError(error, 'SQLITE_NOTADB', 'SQLITE_CORRUPT')

/** What an error says at its root: the query builder puts the whole statement round it. */
export function rootMessage(error: unknown): string {
  let at = error
  while (at instanceof Error && at.cause instanceof Error) at = at.cause
  return at instanceof Error ? at.message : String(at)
}
