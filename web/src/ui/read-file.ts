/**
 * The text of a file that was chosen, or why it cannot be had, with what to do: between choosing and reading it may have been moved,
 * changed or taken out with its stick.
 */
export async function readFile(
  file: File,
): Promise<{ ok: true; text: string } | { ok: false; says: string }> {
  try {
    return { ok: true, text: await file.text() }
  } catch {
    return {
      ok: false,
      says: `${file.name} can’t be read: it was moved or changed, or is no file. Choose it again.`,
    }
  }
}
