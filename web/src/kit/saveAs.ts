/** A file onto the device of whoever asked for it. */
export function saveAs(name: string, text: string, type = 'application/json'): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
