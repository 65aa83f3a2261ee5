/** A drawing's name as the name of a file, without its ending: letters, digits and hyphens of any script. */
export function fileNameOf(name: string): string {
  const plain = name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '').toLowerCase().slice(0, 80)
  return plain || 'drawing'
}
