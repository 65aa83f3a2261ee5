/** A drawing's name as the name of a file, without its ending: letters, digits and hyphens of any script. */
export function fileNameOf(name: string): string {
  const plain = name
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 80)
  return plain || 'drawing'
}

/** A file name, or with a number before its ending where it is taken already; case makes no difference. */
export function freeFileName(taken: ReadonlySet<string>, name: string): string {
  const held = new Set([...taken].map((t) => t.toLowerCase()))
  const dot = name.indexOf('.')
  const [base, ending] = dot < 0 ? [name, ''] : [name.slice(0, dot), name.slice(dot)]
  let free = name
  for (let n = 2; held.has(free.toLowerCase()); n++) free = `${base}-${n}${ending}`
  return free
}
