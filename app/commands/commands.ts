import { TRAY_KEYS, trayOf } from '~/catalogue/instruments'
import type { PassName } from '~/catalogue/passes'
import { PASSES } from '~/catalogue/passes'

/** Something that a key does in the workspace. */
export interface Command {
  id: string
  /** As the browser names it, letters small. */
  key: string
  shift?: true
  ctrl?: true
  /** It does it for as long as it is held. */
  held?: true
  does: string
  /** Its key stays as it is. */
  fixed?: true
}

const NTH = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth'] as const

/** What goes by the place of a pass or an instrument: their keys are those of these lists. */
const BY_PLACE: readonly Command[] = [
  ...PASSES.map(({ id, title }, i) => ({ id: `pass ${id}`, key: String(i + 1), does: title })),
  ...TRAY_KEYS.flatMap((key, i): Command[] => [
    { id: `instrument ${i + 1}`, key, does: `${NTH[i]} instrument` },
    { id: `instrument ${i + 1 + TRAY_KEYS.length}`, key, shift: true, does: `${NTH[i]} instrument of the second row` },
  ]),
]

const BY_NAME = [
  { id: 'whole-page', key: '0', does: 'Whole page; held: for as long' },
  { id: 'final-size', key: '9', does: 'Final size; held: for as long' },
  { id: 'last-view', key: '8', does: 'The view before' },
  { id: 'bare', key: 'x', does: 'Ink or bare centrelines' },
  { id: 'fronts', key: 'x', shift: true, does: 'What lies in front' },
  { id: 'mirror-lines', key: 'm', shift: true, does: 'Mirror or repeat as you draw' },
  { id: 'push', key: 's', shift: true, does: 'Push lines softly, several at once' },
  { id: 'next-finding', key: 'g', does: 'Next thing to look at' },
  { id: 'previous-finding', key: 'g', shift: true, does: 'Previous thing to look at' },
  { id: 'mirror', key: 'm', does: 'See mirrored' },
  { id: 'hide-sketch', key: 'h', held: true, does: 'Hide the sketch' },
  { id: 'hide-ink', key: 'h', shift: true, held: true, does: 'See the sketch alone' },
  { id: 'before', key: 'b', held: true, does: 'Before this visit' },
  { id: 'even', key: 'b', shift: true, held: true, does: 'With even weight' },
  { id: 'next-profile', key: 'n', does: 'Next profile' },
  { id: 'previous-profile', key: 'n', shift: true, does: 'Previous profile' },
  { id: 'copy-weight', key: 'c', shift: true, does: 'Copy a weight' },
  { id: 'paste-weight', key: 'v', shift: true, does: 'Paste a weight' },
  { id: 'flip-ends', key: 'f', does: 'Flip ends' },
  { id: 'flip-sides', key: 'f', shift: true, does: 'Flip sides' },
  { id: 'lighter', key: '[', does: 'Lighter' },
  { id: 'heavier', key: ']', does: 'Heavier' },
  { id: 'next-nib', key: 'l', does: 'Next nib' },
  { id: 'previous-nib', key: 'l', shift: true, does: 'Previous nib' },
  { id: 'turn-left', key: ',', does: 'Turn the page left' },
  { id: 'turn-left-little', key: ',', shift: true, does: 'Turn the page left by one degree' },
  { id: 'turn-right', key: '.', does: 'Turn the page right' },
  { id: 'turn-right-little', key: '.', shift: true, does: 'Turn the page right by one degree' },
  { id: 'upright', key: '/', does: 'Upright' },
  { id: 'next-line', key: 'j', does: 'Next line' },
  { id: 'next-line-besides', key: 'j', shift: true, does: 'Next line besides' },
  { id: 'previous-line', key: 'k', does: 'Previous line' },
  { id: 'previous-line-besides', key: 'k', shift: true, does: 'Previous line besides' },
  { id: 'to-settings', key: 's', does: 'To the settings' },
  { id: 'up', key: 'u', does: 'One up' },
  { id: 'front', key: 'u', shift: true, does: 'To the front' },
  { id: 'down', key: 'd', does: 'One down' },
  { id: 'back', key: 'd', shift: true, does: 'To the back' },
  { id: 'zoom-in', key: '+', fixed: true, does: 'Zoom in' },
  { id: 'zoom-out', key: '-', fixed: true, does: 'Zoom out' },
  { id: 'ask', key: 'i', does: 'Ask by word' },
  { id: 'keys', key: '?', fixed: true, does: 'These keys' },
  { id: 'let-go', key: 'Escape', fixed: true, does: 'Drop, or let go of what is chosen' },
  { id: 'undo', key: 'z', ctrl: true, does: 'Undo' },
  { id: 'redo', key: 'z', ctrl: true, shift: true, does: 'Redo' },
  { id: 'redo-too', key: 'y', ctrl: true, does: 'Redo' },
  { id: 'save', key: 's', ctrl: true, does: 'Save what is left to save' },
  { id: 'choose-all', key: 'a', ctrl: true, does: 'Choose all' },
  { id: 'copy', key: 'c', ctrl: true, does: 'Copy' },
  { id: 'paste', key: 'v', ctrl: true, does: 'Paste at the pointer' },
  { id: 'paste-in-place', key: 'v', ctrl: true, shift: true, does: 'Paste in place, on the layer in use' },
  { id: 'duplicate', key: 'd', ctrl: true, does: 'Duplicate' },
] as const satisfies readonly Command[]

/** Keys of the hand that keys move, and of instruments, which hear them before any command is looked for. */
const BY_OTHERS = [
  { id: 'key-hand', key: 'p', does: 'Hand that keys move' },
  { id: 'next-grip', key: 'o', does: 'Hand to the next mark' },
  { id: 'previous-grip', key: 'o', shift: true, does: 'Hand to the previous mark' },
  { id: 'all-stops', key: 'a', shift: true, does: 'All stops of the chosen lines' },
] as const satisfies readonly Command[]

export type CommandId = (typeof BY_NAME)[number]['id']
export type NamedId = CommandId | (typeof BY_OTHERS)[number]['id'] | `pass ${PassName}` | `instrument ${number}`

/** Everything that a key does in the workspace, once. */
export const COMMANDS: readonly Command[] = [...BY_PLACE, ...BY_NAME, ...BY_OTHERS]

/** Whether a command is one that is run by its name. */
export const isRun = (id: string): id is CommandId => BY_NAME.some((c) => c.id === id)

/** What Shift makes of signs that stand for another key. */
const SAME_KEY: Readonly<Record<string, string>> = { '<': ',', '>': '.', '=': '+', _: '-' }

/** What a pressed key does, by its name; a key that says nothing of Shift does the same with it. */
export function commandOf(key: string, shift: boolean, ctrl: boolean): CommandId | null {
  const pressed = SAME_KEY[key] ?? key
  const same = BY_NAME.filter((c: Command) => c.key === pressed && !!c.ctrl === ctrl)
  const found = same.find((c: Command) => !!c.shift === shift) ?? same.find((c: Command) => !c.shift)
  return found?.id ?? null
}

/** The command that takes an instrument of a pass up. */
export const commandForInstrument = (pass: PassName, id: string): NamedId =>
  `instrument ${trayOf(pass).findIndex((i) => i.id === id) + 1}`

const isOwn = ({ ctrl, fixed }: Command): boolean => !ctrl && !fixed

/** Keys that can be changed, by what they are at first, and what they do without Shift. */
export const CHANGEABLE: readonly Command[] = COMMANDS.filter(
  (c, i) =>
    isOwn(c) &&
    !(c.shift && COMMANDS.some((o) => isOwn(o) && o.key === c.key && !o.shift)) &&
    COMMANDS.findIndex((o) => isOwn(o) && o.key === c.key && !!o.shift === !!c.shift) === i,
)

/** A key as it is written, under which other key it may be now. */
export function written({ key, shift, ctrl, fixed }: Command, keyOf: (was: string) => string): string {
  const now = ctrl || fixed ? key : keyOf(key)
  const name = now.length === 1 ? now.toUpperCase() : now === 'Escape' ? 'Esc' : now
  return `${ctrl ? 'Ctrl + ' : ''}${shift ? 'Shift + ' : ''}${name}`
}
