/**
 * Who an edge belongs to: pairs of a group and how often the edge runs along that group's boundary (negative when it
 * runs against it). Lists never change once made, so that the pieces of an edge can share one. List 0 is empty: its
 * edges are no boundary at all.
 */
export class OwnerLists {
  private readonly lists: Int32Array[] = [new Int32Array(0)]
  private readonly known = new Map<string, number>([['', 0]])

  /** The list that says: once along the boundary of `group`. */
  single(group: number): number {
    return this.intern(Int32Array.of(group, 1))
  }

  /** Pairs group, times. */
  get(list: number): Int32Array {
    return this.lists[list]!
  }

  /** The list of two edges that coincide; `sign` is -1 where the second runs against the first. */
  merged(a: number, b: number, sign: 1 | -1): number {
    const x = this.lists[a]!
    const y = this.lists[b]!
    const out: number[] = []
    let i = 0
    let j = 0
    while (i < x.length || j < y.length) {
      if (j >= y.length || (i < x.length && x[i]! < y[j]!)) {
        out.push(x[i]!, x[i + 1]!)
        i += 2
      } else if (i >= x.length || y[j]! < x[i]!) {
        out.push(y[j]!, sign * y[j + 1]!)
        j += 2
      } else {
        const times = x[i + 1]! + sign * y[j + 1]!
        if (times !== 0) out.push(x[i]!, times)
        i += 2
        j += 2
      }
    }
    return this.intern(Int32Array.from(out))
  }

  private intern(list: Int32Array): number {
    const key = list.join()
    const known = this.known.get(key)
    if (known !== undefined) return known
    this.known.set(key, this.lists.length)
    return this.lists.push(list) - 1
  }
}
