/** Something that can be asked for by a few letters of its words. */
export interface Findable {
  /** What it is called, and what kind of thing it is. */
  title: string
  kind: string
  /** One sentence; empty where the title says it. */
  says: string
  /** The key that does it, as it is written; empty where there is none. */
  key: string
  go: () => unknown
}

const MOST = 12

/** A word of a thing begins with what was typed, lies in it, or has its letters in their order; the lower the nearer, null: not. */
function distanceTo(text: string, word: string): number | null {
  if (text.startsWith(word)) return 0
  if (text.split(/[\s,()]+/).some((w) => w.startsWith(word))) return 1
  if (text.includes(word)) return 2
  return null
}

/** Whether the letters of a word come in this order within one word of a text. */
const hasLetters = (text: string, word: string): boolean =>
  text.split(/\s+/).some((w) => {
    let at = 0
    for (const c of w) if (c === word[at]) at++
    return at === word.length && w[0] === word[0]
  })

/** What is meant by some letters, the nearest first: each word that was typed lies in the title, or in what is said of it. */
export function foundByWord<T extends Findable>(all: readonly T[], typed: string): T[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return []
  return all
    .flatMap((thing, place) => {
      const [title, says] = [thing.title.toLowerCase(), `${thing.kind} ${thing.says}`.toLowerCase()]
      let cost = 0
      for (const word of words) {
        const near = distanceTo(title, word)
        const far = distanceTo(says, word)
        if (near !== null) cost += near
        else if (far !== null) cost += 4 + far
        else if (word.length > 1 && hasLetters(title, word)) cost += 8
        else return []
      }
      return [{ thing, cost, place }]
    })
    .sort((a, b) => a.cost - b.cost || a.place - b.place)
    .slice(0, MOST)
    .map(({ thing }) => thing)
}
