import { createRequire } from 'node:module'
import type { Vec } from '../core/geometry/point'

const require = createRequire(import.meta.url)

interface Paths {
  push_back(path: unknown): void
  size(): number
  get(i: number): { size(): number; get(k: number): Vec; delete(): void }
  delete(): void
}

interface Clipper {
  PathsD: new () => Paths
  MakePathD(numbers: number[]): unknown
  UnionSelfD(paths: Paths, rule: unknown, precision: number): Paths
  AreaPathsD(paths: Paths): number
  FillRule: { NonZero: unknown }
}

/** The polygon library that the engine is measured against; what it made comes back only where `keep` asks for it. */
export async function loadClipper(): Promise<
  (polygons: readonly (readonly Vec[])[], keep?: boolean) => { points: number; area: number; polygons: Vec[][] }
> {
  const load = require('clipper2-wasm/dist/umd/clipper2z.js') as () => Promise<Clipper>
  const c = await load()
  return (polygons, keep = false) => {
    const paths = new c.PathsD()
    for (const p of polygons) paths.push_back(c.MakePathD(p.flatMap((v) => [v.x, v.y])))
    const union = c.UnionSelfD(paths, c.FillRule.NonZero, 4)
    let points = 0
    for (let i = 0; i < union.size(); i++) points += union.get(i).size()
    const kept = keep ? Array.from({ length: union.size() }, (_, i) => polygonOf(union.get(i))) : []
    const area = c.AreaPathsD(union)
    union.delete()
    paths.delete()
    return { points, area, polygons: kept }
  }
}

const polygonOf = (path: { size(): number; get(k: number): Vec }): Vec[] =>
  Array.from({ length: path.size() }, (_, k) => {
    const { x, y } = path.get(k)
    return { x, y }
  })
