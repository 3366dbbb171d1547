/** Gives a text to the person at the tablet as a file. */
export function saveFile(text: string, name: string, type = 'text/plain') {
  const address = URL.createObjectURL(new Blob([text], { type }))
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}
