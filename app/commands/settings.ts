import type { PassName } from '~/catalogue/passes'

/** Settings that are found with an instrument, by the words that they have there. */
export const SETTINGS: readonly { title: string; says: string; pass: PassName; instrument?: string }[] = [
  { title: 'Steadiness', says: 'How much a freehand line is steadied', pass: 'lines', instrument: 'freehand' },
  { title: 'Unevenness', says: 'A gentle variation of the width', pass: 'lines', instrument: 'freehand' },
  { title: 'Pressure curve', says: 'How a pen presses through', pass: 'lines', instrument: 'freehand' },
  { title: 'Closes within', says: 'How near a stroke comes back to be closed', pass: 'lines', instrument: 'freehand' },
  { title: 'Snapping', says: 'What points are drawn to', pass: 'lines', instrument: 'pen' },
  { title: 'Cling', says: 'How strongly lines are drawn to the pencil', pass: 'lines', instrument: 'pen' },
  { title: 'How points join', says: 'Corners or smooth, as they are clicked', pass: 'lines', instrument: 'pen' },
  { title: 'Tapers', says: 'How the ends of the next line run out', pass: 'lines', instrument: 'pen' },
  { title: 'Bends like', says: 'Bows as parts of a circle, or like a rod', pass: 'lines', instrument: 'bow' },
  { title: 'It reaches', says: 'How far a new width stop widens a line', pass: 'weight', instrument: 'caliper' },
  {
    title: 'Strength of the light',
    says: 'How much thinner edges are towards it',
    pass: 'weight',
    instrument: 'light',
  },
  { title: 'Unite', says: 'Whether shapes of an ink are one', pass: 'shapes', instrument: 'inspect' },
  { title: 'Simplify', says: 'How far outlines may move to have fewer nodes', pass: 'shapes', instrument: 'inspect' },
  { title: 'Gaps of a pour', says: 'How wide a gap is bridged', pass: 'fill', instrument: 'pour' },
  { title: 'Page and unit', says: 'How large the drawing will be', pass: 'sketch' },
  { title: 'Bleed and marks', says: 'What a file for print has round its page', pass: 'deliver' },
]
