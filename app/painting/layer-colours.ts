import type { Layer } from '#core/model/model'
import type { InkEntry } from './paint-stack'

/** Dark enough for thin lines, and told apart by whoever sees red and green alike, too. */
const COLOURS = ['#0b5f8a', '#b04a00', '#5b3f9b', '#00694f', '#a3245c', '#7a5c00', '#3a3a3a', '#006d77']

/** Ink by its layer: each has a colour of its own. The same object for the same entry, as long as its layer keeps its place. */
export class LayerColours {
  private readonly made = new WeakMap<InkEntry, InkEntry>()

  /** Entries as they are to be seen; those of no layer keep their ink. */
  of(entries: readonly InkEntry[], layers: readonly Pick<Layer, 'id'>[]): InkEntry[] {
    const places = new Map(layers.map((l, i) => [l.id, i]))
    return entries.map((entry) => {
      const place = places.get(entry.layer)
      if (place === undefined) return entry
      const colour = COLOURS[place % COLOURS.length]!
      const known = this.made.get(entry)
      if (known?.colour === colour) return known
      const coloured = { ...entry, colour }
      this.made.set(entry, coloured)
      return coloured
    })
  }
}
