import type { Vec } from '../geometry/point'
import type { Drawing } from '../model/model'
import { newId } from '../new-id'
import type { Rule } from './images'
import { rulesOf } from './images'
import { originOf } from '../model/image-ids'

/** What a hand lays of a rule: an axis through two points, or a point and how many times. */
export type Laid = { from: Vec; to: Vec } | { about: Vec; times: number }

/** A fresh rule for some lines; what is drawn from now on goes along. */
export const newRule = (laid: Laid, lines: readonly string[]): Rule =>
  'from' in laid
    ? { id: newId(), kind: 'mirror', lines: [...lines], fresh: true, ...laid }
    : { id: newId(), kind: 'repeat', lines: [...lines], fresh: true, ...laid }

/** Changes a rule of a draft; null takes it away, and what it made. */
export function changeRule(draft: Drawing, id: string, by: ((rule: Rule) => void) | null): void {
  if (!by) draft.amendments = (draft.amendments ?? []).filter((a) => a.id !== id)
  else for (const rule of rulesOf(draft)) if (rule.id === id) by(rule)
}

/** Lines go along with a rule, or no more. */
export function takeAlong(rule: Rule, lines: readonly string[], goes: boolean): void {
  const ids = lines.map(originOf)
  rule.lines = [...rule.lines.filter((l) => !ids.includes(l)), ...(goes ? new Set(ids) : [])]
}

/** The joint of a line across an axis becomes a corner where it is smooth, and smooth where it is a corner. */
export function turnJoint(rule: Rule, line: string): void {
  if (rule.kind !== 'mirror') return
  const [others, id] = [rule.otherwise ?? [], originOf(line)]
  rule.otherwise = others.includes(id) ? others.filter((c) => c !== id) : [...others, id]
  if (!rule.otherwise.length) delete rule.otherwise
}
