import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { NextLine } from './worktop'

/** How wide a line of full weight would be at the pointer, as the nib in hand has it; nothing where the pointer is not. */
export function nibMark(worktop: NextLine, at: Vec | null): Mark[] {
  if (!at) return []
  const { size, nib } = worktop.nextWeight()
  return [{ kind: 'brush', at, width: size, nib }]
}
