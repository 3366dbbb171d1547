/** A change of one place of a text. Line from 1, columns from 0; an insertion has `from` = `to`. */
export interface TextEdit {
  line: number
  from: number
  to: number
  insert: string
}

/** The text with the edits made; lines that do not stand there are left out. */
export function withEdits(text: string, edits: readonly TextEdit[]): string {
  const lines = text.split('\n')
  for (const { line, from, to, insert } of [...edits].sort((a, b) => b.line - a.line || b.from - a.from)) {
    const old = lines[line - 1]
    if (old !== undefined) lines[line - 1] = old.slice(0, from) + insert + old.slice(to)
  }
  return lines.join('\n')
}
