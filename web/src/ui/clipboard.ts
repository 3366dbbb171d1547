// Browsers give the clipboard to pages over https and at the server's own PC; elsewhere a text is copied the old way, and cannot be pasted by a key.

const NOT_GIVEN =
  'The browser gives no page the clipboard here: over https it does. Hold a finger on the field to paste.'

/** Copies a text; what to say where it could not be, else nothing. */
export async function copyText(text: string): Promise<string | undefined> {
  if (navigator.clipboard) {
    try {
      await navigator.clipboard.writeText(text)
      return undefined
    } catch {
      // The old way.
    }
  }
  const field = document.createElement('textarea')
  field.value = text
  field.className = 'sr-only'
  const focused = document.activeElement
  document.body.append(field)
  field.focus()
  field.select()
  const done = document.execCommand('copy')
  field.remove()
  if (focused instanceof HTMLElement) focused.focus()
  return done ? undefined : 'The browser did not let it be copied.'
}

/** What stands in the clipboard, or why that cannot be had. */
export async function pasteText(): Promise<{ text?: string; says?: string }> {
  try {
    const text = (await navigator.clipboard?.readText())?.trim()
    if (text === undefined) return { says: NOT_GIVEN }
    return text === '' ? { says: 'Nothing was copied.' } : { text }
  } catch {
    return { says: NOT_GIVEN }
  }
}
