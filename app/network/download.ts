/** How long the browser may take to fetch what was offered, ms. */
const OFFERED = 10_000

/** Gives a file to the person's computer. */
export function download(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), OFFERED)
}
