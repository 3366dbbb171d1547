import { together } from '@dogleg/core/program'
import { LARGE, programText, textOf } from './large-text.ts'
import type { OpenProgram } from './use-program.ts'

/** Longer files are refused. */
const LONGEST_FILE = 100_000_000

const million = (characters: number) => Math.round(characters / 1e5) / 10

/** Why files are too large to be opened; undefined where they are not. Several are looked through on the page, so they are held shorter. */
export function sizeSaid(files: readonly File[]): string | undefined {
  const size = files.reduce((sum, file) => sum + file.size, 0)
  if (files.length > 1)
    return size > LARGE
      ? `Together they have ${million(size)} million characters; at most ${million(LARGE)} million are taken at once.`
      : undefined
  return size > LONGEST_FILE
    ? `${files[0]?.name} has ${Math.round(size / 1e6)} million characters; at most 100 million are taken.`
    : undefined
}

/** The program of a file, or of several that call each other; or why it cannot be had, with what to do. */
export async function openProgram(
  files: readonly File[],
): Promise<{ ok: true; program: OpenProgram } | { ok: false; says: string }> {
  const texts = await Promise.all(files.map((file) => textOf(file).catch(() => undefined)))
  const lost = files[texts.indexOf(undefined)]
  if (lost)
    return {
      ok: false,
      says: `${lost.name} can't be read: it was moved or changed, or is no file. Choose it again.`,
    }
  const [file] = files
  const [text] = texts
  if (files.length < 2 || !file || text === undefined)
    return { ok: true, program: { title: (file?.name ?? '').slice(0, 80), text: text ?? '' } }
  const found = together(
    files.map(({ name }, at) => ({ name, text: (texts[at] as NonNullable<typeof text>).slice(0) })),
  )
  return found.ok
    ? { ok: true, program: { title: found.name.slice(0, 80), text: programText(found.text) } }
    : found
}
