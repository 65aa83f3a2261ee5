import { newId } from '../new-id'
import type { Amendment, Drawing, Fill, Layer, Line } from '../model/model'
import { imagesOf } from './images'
import { isImage, tagOf } from '../model/image-ids'
import type { Rule } from './images'
import { withRule } from './with-copies'

/**
 * The drawing in which what a rule makes stands as lines of their own, drawn like others: all of it, or one image of a
 * repetition. What looks so afterwards looked so before.
 *
 * @param only which image, 1 the first after the lines themselves; all when absent, and the rule is gone
 */
export function setFree(drawing: Drawing, rule: Rule, only?: number): Drawing {
  const isOne = only !== undefined && rule.kind === 'repeat'
  const others = Array.from({ length: 23 }, (_, i) => i + 1).filter((k) => k !== only)
  const made = withRule(drawing, isOne ? { ...rule, left: others } : rule)
  const tags = new Set(imagesOf(rule).map((i) => i.tag))
  const fresh = new Map<string, string>()
  // Of what earlier rules made, images are made anew by them: only what was drawn becomes lines.
  const named = (id: string): string => {
    if (!tags.has(tagOf(id) ?? '')) return id
    if (!fresh.has(id)) fresh.set(id, newId())
    return fresh.get(id)!
  }
  const layers = made.layers.map((l): Layer =>
    l.kind === 'lines' ? { ...l, items: l.items.map((i): Line => ({ ...i, id: named(i.id) })) } : l,
  )
  const left = isOne ? { ...rule, left: [...(rule.left ?? []), only].sort((a, b) => a - b) } : null
  const known = new Set((drawing.amendments ?? []).map((a) => a.id))
  const amendments = (made.amendments ?? []).flatMap((a): Amendment[] => {
    if (a.id === rule.id) return left ? [left] : []
    const here = withIds(a, named)
    return [known.has(a.id) ? here : { ...here, id: newId() }]
  })
  const fills = made.fills?.map((f): Fill => ({
    ...f,
    id: isImage(f.id) ? newId() : f.id,
    hold: f.hold.map((h) => ({ ...h, line: named(h.line) })),
    ...(f.shades && { shades: f.shades.map((s) => ({ ...s, id: isImage(s.id) ? newId() : s.id })) }),
  }))
  return { ...made, layers, amendments, ...(fills && { fills }) }
}

/** An amendment that speaks of lines by other ids. */
function withIds(a: Amendment, id: (was: string) => string): Amendment {
  switch (a.kind) {
    case 'trim':
      return { ...a, line: id(a.line), over: a.over.map(id), bounds: a.bounds.map((b) => ({ ...b, by: id(b.by) })) }
    case 'fineness':
      return { ...a, line: id(a.line) }
    case 'corner': {
      const [one, two] = a.ends
      return {
        ...a,
        ends: [
          { ...one, line: id(one.line) },
          { ...two, line: id(two.line) },
        ],
      }
    }
    case 'front':
      return { ...a, front: a.front.map(id), back: a.back.map(id) }
    case 'cast':
      return { ...a, front: a.front.map(id) }
    case 'bridge':
    case 'mirror':
    case 'repeat':
      return { ...a, lines: a.lines.map(id) }
    case 'retouch':
      return a.by ? { ...a, by: { ...a.by, line: id(a.by.line) } } : a
    case 'leave':
      return a
  }
}
