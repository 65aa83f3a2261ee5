import type { CssNode, Rule } from 'css-tree'
import parse from 'css-tree/parser'
import generate from 'css-tree/generator'
import type { Options } from 'css-select'
import { compile } from 'css-select'
import type { Selector } from 'css-what'
import { parse as parseSelector } from 'css-what'
import type { SvgElement } from './element'
import { withAllIn } from './element'

/** Rules times elements that are looked at, those that it can mean; a file that asks for more has its other rules left out. */
const MOST_LOOKS = 1_500_000
/** Making a rule ready costs as much as so many looks. */
const RULE = 10

interface Declaration {
  property: string
  value: string
  important: boolean
}

interface SheetRule {
  selector: string
  /** What an element must be named for to be meant, as `keysOf` has it; null: any. */
  key: string | null
  specificity: number
  declarations: Declaration[]
}

/**
 * Gives each element what style sheets and its style attribute declare of it, by the cascade: presentation attributes count
 * least and stay where they are; then sheets by the weight of their selectors and their order, then the style attribute, then
 * what is important.
 *
 * @returns how many rules were left out
 */
export function declareStyles(root: SvgElement): number {
  const all = [...withAllIn(root)]
  const rules = all
    .filter((e) => e.tag === 'style' && (e.attributes.type ?? 'text/css') === 'text/css')
    .flatMap((e) => rulesOf(e.text))
  const byKey = elementsByKey(all)
  const found = new Map<SvgElement, { declaration: Declaration; weight: number }[]>()
  const note = (e: SvgElement, declarations: readonly Declaration[], specificity: number): void => {
    const there = found.get(e) ?? []
    for (const declaration of declarations)
      there.push({ declaration, weight: specificity + (declaration.important ? IMPORTANT : 0) })
    found.set(e, there)
  }
  let lost = 0
  let looks = 0
  for (const { selector, key, specificity, declarations } of rules) {
    const meant = key === null ? all : byKey.get(key)
    if (!meant) continue
    if ((looks += meant.length + RULE) > MOST_LOOKS) {
      lost++
      continue
    }
    try {
      const matches = compile<SvgElement, SvgElement>(selector, { xmlMode: true, adapter: ADAPTER })
      for (const e of meant) if (matches(e)) note(e, declarations, specificity)
    } catch {
      // A selector that nothing can be made of matches nothing.
      lost++
    }
  }
  for (const e of all) if (e.attributes.style) note(e, declarationsOf(e.attributes.style), INLINE)
  for (const [e, some] of found) {
    // Sorting keeps the order of equals: what stands later counts more.
    for (const { declaration } of some.sort((a, b) => a.weight - b.weight))
      e.declared[declaration.property] = declaration.value
  }
  return lost
}

/** Elements by what selectors call them: `#id`, `.class` and tag. */
function elementsByKey(all: readonly SvgElement[]): Map<string, SvgElement[]> {
  const byKey = new Map<string, SvgElement[]>()
  for (const e of all) {
    for (const key of new Set([
      e.tag,
      `#${e.attributes.id ?? ''}`,
      ...(e.attributes.class ?? '').split(/\s+/).map((c) => `.${c}`),
    ])) {
      const some = byKey.get(key)
      if (some) some.push(e)
      else byKey.set(key, [e])
    }
  }
  return byKey
}

/** What the element that a selector means must be called: by its last part. */
function keyOf(parts: readonly Selector[]): string | null {
  const last = parts.slice(
    parts.findLastIndex((p) => /^(descendant|child|sibling|adjacent|parent|column-combinator)$/.test(p.type)) + 1,
  )
  const named = (name: string, action: string): string | undefined =>
    last.flatMap((p) =>
      p.type === 'attribute' && p.name === name && p.action === action && !p.namespace && p.ignoreCase !== true
        ? [p.value]
        : [],
    )[0]
  const [id, of] = [named('id', 'equals'), named('class', 'element')]
  if (id !== undefined) return `#${id}`
  if (of !== undefined) return `.${of}`
  const tag = last.find((p) => p.type === 'tag')
  return tag?.type === 'tag' && !tag.namespace ? tag.name : null
}

const INLINE = 1e9
const IMPORTANT = 1e12

function rulesOf(text: string): SheetRule[] {
  const out: SheetRule[] = []
  const take = (nodes: Iterable<CssNode>): void => {
    for (const node of nodes) {
      if (node.type === 'Rule') out.push(...ofRule(node))
      // What is for a screen of any size counts; print and the rest do not.
      else if (
        node.type === 'Atrule' &&
        node.name === 'media' &&
        node.block &&
        !/print|speech/.test(node.prelude ? generate(node.prelude) : '')
      )
        take(node.block.children)
    }
  }
  const sheet = parse(text.replace(/^\s*<!--|-->\s*$/g, ''), {
    parseValue: false,
    parseRulePrelude: false,
    onParseError: () => undefined,
  })
  if (sheet.type === 'StyleSheet') take(sheet.children)
  return out
}

function ofRule(rule: Rule): SheetRule[] {
  const declarations = fromNodes(rule.block.children)
  const prelude = generate(rule.prelude)
  try {
    return parseSelector(prelude).map((parts, i) => ({
      selector: selectorsIn(prelude)[i] ?? prelude,
      key: keyOf(parts),
      specificity: specificityOf(parts),
      declarations,
    }))
  } catch {
    return []
  }
}

/** The selectors of a list, which are parted by commas outside of brackets. */
function selectorsIn(text: string): string[] {
  const out = ['']
  let depth = 0
  for (const c of text) {
    if ('([{'.includes(c)) depth++
    if (')]}'.includes(c)) depth--
    if (c === ',' && depth === 0) out.push('')
    else out[out.length - 1] += c
  }
  return out.map((s) => s.trim())
}

/** As in Selectors Level 3: ids, then classes, attributes and pseudo-classes, then elements. */
function specificityOf(parts: readonly Selector[]): number {
  return parts.reduce((n, p) => {
    if (p.type === 'attribute') return n + (p.name === 'id' && p.action === 'equals' ? 1e6 : 1e3)
    if (p.type === 'pseudo') return n + 1e3
    return p.type === 'tag' || p.type === 'pseudo-element' ? n + 1 : n
  }, 0)
}

function declarationsOf(style: string): Declaration[] {
  const list = parse(style, { context: 'declarationList', parseValue: false, onParseError: () => undefined })
  return list.type === 'DeclarationList' ? fromNodes(list.children) : []
}

function fromNodes(nodes: Iterable<CssNode>): Declaration[] {
  return [...nodes].flatMap((n) =>
    n.type === 'Declaration'
      ? [{ property: n.property.toLowerCase(), value: generate(n.value).trim(), important: !!n.important }]
      : [],
  )
}

const ADAPTER: NonNullable<Options<SvgElement, SvgElement>['adapter']> = {
  isTag: (node): node is SvgElement => !!node,
  getAttributeValue: (e, name) => e.attributes[name],
  getChildren: (e) => e.children,
  getName: (e) => e.tag,
  getParent: (e) => e.parent,
  getSiblings: (e) => e.parent?.children ?? [e],
  getText: (e) => e.text,
  hasAttrib: (e, name) => name in e.attributes,
  removeSubsets: (nodes) => nodes.filter((n, i) => nodes.indexOf(n) === i),
  existsOne: (test, nodes) => nodes.some((n) => [...withAllIn(n)].some(test)),
  findAll: (test, nodes) => nodes.flatMap((n) => [...withAllIn(n)].filter(test)),
  findOne: (test, nodes) => nodes.flatMap((n) => [...withAllIn(n)]).find(test) ?? null,
}
