/** An element of an SVG file. */
export interface SvgElement {
  tag: string
  /** Attributes by local name; those of our namespace as `bt:name`. */
  attributes: Readonly<Record<string, string>>
  /** What style sheets and its style attribute say of it, by property. */
  declared: Record<string, string>
  children: SvgElement[]
  parent: SvgElement | null
  /** What stands in it as text. */
  text: string
}

/** Gathers elements, as they are read, into a tree. */
export class ElementTree {
  root: SvgElement | null = null
  private readonly open_: SvgElement[] = []

  open(tag: string, attributes: Readonly<Record<string, string>>): void {
    const parent = this.open_.at(-1) ?? null
    const element: SvgElement = { tag, attributes, declared: {}, children: [], parent, text: '' }
    parent?.children.push(element)
    this.root ??= element
    this.open_.push(element)
  }

  text(text: string): void {
    const here = this.open_.at(-1)
    if (here) here.text += text
  }

  close(): void {
    this.open_.pop()
  }
}

/** An element and all in it, each before what is in it. */
export function* withAllIn(element: SvgElement): Generator<SvgElement> {
  yield element
  for (const child of element.children) yield* withAllIn(child)
}

/** Elements by their ids; the first of several that share one. */
export function byId(root: SvgElement): Map<string, SvgElement> {
  const out = new Map<string, SvgElement>()
  for (const e of withAllIn(root)) {
    const { id } = e.attributes
    if (id && !out.has(id)) out.set(id, e)
  }
  return out
}

/** The id that a reference within the file names ("#leaf", "url(#leaf)"); null for any other. */
export function idOfReference(text: string | undefined): string | null {
  const found = /^\s*(?:url\(\s*(['"]?)#([^'")]+)\1\s*\)|#(\S+)\s*$)/.exec(text ?? '')
  return found?.[2] ?? found?.[3] ?? null
}
