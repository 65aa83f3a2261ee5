import type { Command, NamedId } from './commands'
import { COMMANDS, written } from './commands'

/** A row of the card: commands and what they do together, or something that no key alone does. */
type Row = { of: readonly (NamedId | 'passes' | 'instruments')[]; says?: string } | { gesture: string; says: string }

const ROWS: readonly Row[] = [
  { of: ['passes'], says: 'Go to a pass' },
  { of: ['instruments'], says: 'Instruments by place, with Shift the second row; held: only while held' },
  { gesture: 'Shift, Alt', says: 'Constrain; act on one side or from the middle' },
  { gesture: 'Alt, held', says: 'With Pen and Bow: mend what is laid' },
  { gesture: 'Ctrl, held', says: 'No snapping; with the Caliper: nodes and handles' },
  { gesture: 'Space + drag', says: 'Move the page (also middle drag)' },
  { gesture: 'Space + Shift + drag', says: 'Turn the page' },
  { gesture: 'Wheel', says: 'Zoom at the pointer' },
  { of: ['zoom-in', 'zoom-out'], says: 'Zoom in, out' },
  { gesture: 'Two fingers', says: 'Move, zoom and turn the page' },
  { of: ['whole-page'] },
  { of: ['final-size'] },
  { of: ['last-view'] },
  { of: ['turn-left', 'turn-right'], says: 'Turn the page left, right; with Shift by one degree' },
  { of: ['upright'], says: 'Turn the page upright' },
  { of: ['next-finding', 'previous-finding'], says: 'Next, previous thing to look at in Proof' },
  { of: ['fronts'], says: 'Front: which of two forms lies before the other' },
  { of: ['mirror-lines'], says: 'Mirror: one side follows the other, or lines repeat about a point' },
  { of: ['push'], says: 'Push: bend several lines at once, softly' },
  { of: ['mirror'], says: 'See the page mirrored, to judge the drawing' },
  { of: ['hide-sketch'], says: 'Hide the sketch; with Shift: see it alone' },
  { of: ['before'], says: 'The drawing before this visit to the pass; with Shift: with even weight' },
  { of: ['bare'] },
  { of: ['flip-ends'] },
  { of: ['flip-sides'] },
  { of: ['lighter', 'heavier'], says: 'Lighter, heavier' },
  { of: ['all-stops'], says: 'With the Caliper: all stops of the chosen lines' },
  { of: ['next-nib', 'previous-nib'], says: 'Next, previous nib' },
  { of: ['next-profile', 'previous-profile'], says: 'Next, previous profile; with Trim: the line below' },
  { of: ['copy-weight', 'paste-weight'], says: 'Copy a weight, paste it' },
  { gesture: 'Arrows', says: 'Nudge nodes, stops, the light or an axis; with Shift farther' },
  { of: ['next-line', 'previous-line'], says: 'Choose the next, the previous line of the stack; with Shift besides' },
  { gesture: 'Ctrl + arrows', says: 'Choose the nearest line that way; with Shift besides' },
  {
    of: ['key-hand'],
    says: 'A hand that keys move: arrows (Shift: far, Ctrl: little), Space presses while held',
  },
  { of: ['next-grip', 'previous-grip'], says: 'That hand to the next, the previous mark or line' },
  { of: ['to-settings'], says: 'To the settings of the instrument; Esc: back to the drawing' },
  { of: ['up', 'down'], says: 'One up, one down in the layer; with Shift to front, to back' },
  { gesture: 'Delete', says: 'Remove what is chosen' },
  { of: ['ask'], says: 'Ask by word: any instrument, command, setting, layer, ink, drawing' },
  { of: ['keys'] },
  { gesture: 'Enter', says: 'Finish' },
  { of: ['let-go'] },
  { gesture: 'Backspace', says: 'Take the last node back' },
  { of: ['undo'] },
  { of: ['redo'] },
  { of: ['copy', 'paste', 'duplicate', 'choose-all'], says: 'Copy, paste at the pointer, duplicate, choose all' },
  { of: ['paste-in-place'] },
  { of: ['save'] },
]

/** The card of keys as they are now: what is pressed, and what it does. */
export function keysCard(keyOf: (was: string) => string): [pressed: string, does: string][] {
  const named = (id: string): Command[] => COMMANDS.filter((c) => c.id === id)
  return ROWS.map((row) => {
    if ('gesture' in row) return [row.gesture, row.says]
    const commands = row.of.flatMap((id) =>
      id === 'passes'
        ? COMMANDS.filter((c) => c.id.startsWith('pass '))
        : id === 'instruments'
          ? COMMANDS.filter((c) => c.id.startsWith('instrument ') && !c.shift)
          : named(id),
    )
    const keys = commands.map((c) => written(c, keyOf))
    return [
      keys.join(keys.every((k) => k.length === 1) ? ' ' : ', ') + (commands[0]!.held ? ', held' : ''),
      row.says ?? commands[0]!.does,
    ]
  })
}
