import { createRequire } from 'node:module'
import type { Vec } from '../core/geometry/point'

const require = createRequire(import.meta.url)

interface Paths {
  push_back(path: unknown): void
  size(): number
  get(i: number): { size(): number; delete(): void }
  delete(): void
}

interface Clipper {
  PathsD: new () => Paths
  MakePathD(numbers: number[]): unknown
  UnionSelfD(paths: Paths, rule: unknown, precision: number): Paths
  AreaPathsD(paths: Paths): number
  FillRule: { NonZero: unknown }
}

/** The polygon library that the engine is measured against. */
export async function loadClipper(): Promise<(polygons: readonly (readonly Vec[])[]) => { points: number; area: number }> {
  const load = require('clipper2-wasm/dist/umd/clipper2z.js') as () => Promise<Clipper>
  const c = await load()
  return (polygons) => {
    const paths = new c.PathsD()
    for (const p of polygons) paths.push_back(c.MakePathD(p.flatMap((v) => [v.x, v.y])))
    const union = c.UnionSelfD(paths, c.FillRule.NonZero, 4)
    let points = 0
    for (let i = 0; i < union.size(); i++) points += union.get(i).size()
    const area = c.AreaPathsD(union)
    union.delete()
    paths.delete()
    return { points, area }
  }
}
