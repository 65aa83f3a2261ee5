import { readdirSync, readFileSync } from 'node:fs'

/** Ticks of the kernel's clock are so long, ms. */
const TICK = 10

/** Processor time that a process and all that it started have taken, ms (Linux). */
export function processorTime(root: number): number {
  const all = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const text = readFileSync(`/proc/${name}/stat`, 'utf8')
        // The name of the program, in brackets, may hold anything.
        const fields = text.slice(text.lastIndexOf(')') + 2).split(' ')
        return [{ pid: Number(name), parent: Number(fields[1]), ticks: Number(fields[11]) + Number(fields[12]) }]
      } catch {
        return []
      }
    })
  const tree = new Set([root])
  for (let size = 0; size !== tree.size;) {
    size = tree.size
    for (const p of all) if (tree.has(p.parent)) tree.add(p.pid)
  }
  return TICK * all.filter((p) => tree.has(p.pid)).reduce((n, p) => n + p.ticks, 0)
}
