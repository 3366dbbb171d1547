import { stat } from 'node:fs/promises'

/** The logbook's file is not where it was, or another lies in its place. */
export class LogbookGone extends Error {}

/** The logbook's file is damaged, and is not written into. */
export class LogbookDamaged extends Error {}

const inodeOf = async (path: string): Promise<number | undefined> => {
  try {
    return (await stat(path)).ino
  } catch {
    return undefined
  }
}

/**
 * Looks whether a file that is open, and the file of what was not yet put into it beside, are still those that others would
 * find by their names: what is written into a file that was removed or moved away is lost with the process.
 */
export async function watchFile(file: string): Promise<() => Promise<void>> {
  const beside = `${file}-wal`
  const own = await inodeOf(file)
  let besideOwn = await inodeOf(beside)
  return async () => {
    const now = await inodeOf(file)
    const besideNow = await inodeOf(beside)
    besideOwn ??= besideNow
    if (own === now && besideOwn === besideNow) return
    const [path, found] = own === now ? [beside, besideNow] : [file, now]
    throw new LogbookGone(
      `The file ${path} ${found === undefined ? 'was removed or moved' : 'was put in the place of another'} while Dogleg was running.`,
    )
  }
}
