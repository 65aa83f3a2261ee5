import type { NodeFrame } from './node-frame'

/** What of a line the hand holds: a node, a handle, the line itself, or the frame about what is chosen. */
export type NodeGrip =
  | { kind: 'node'; line: string; index: number }
  | { kind: 'handle'; line: string; index: number; side: 'in' | 'out' }
  | { kind: 'body'; line: string; segment: number; t: number }
  | { kind: 'corner'; index: number; frame: NodeFrame }
  | { kind: 'turner'; frame: NodeFrame }

/** What the hand can do meanwhile. */
export const GRIP_HINTS: Record<NodeGrip['kind'], string> = {
  corner: 'Shift: in proportion · Alt: about the middle · Esc: back',
  turner: 'Shift: 15° steps · Esc: back',
  handle: 'Alt: this handle alone · Esc: back',
  body: 'Pull: bend the line here · Ctrl: free of the pencil · Esc: back',
  node: 'Shift: straight · Ctrl: no snapping · Esc: back',
}

/** What a drag is called as a step, with so many nodes chosen. */
export function stepName({ kind }: NodeGrip, nodes: number): string {
  if (kind === 'corner') return 'Scale nodes'
  if (kind === 'turner') return 'Turn nodes'
  if (kind === 'handle') return 'Move a handle'
  if (kind === 'body') return 'Bend a segment'
  return nodes > 1 ? 'Move nodes' : 'Move a node'
}
