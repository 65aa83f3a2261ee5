import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { trayOf } from '~/catalogue/instruments'
import type { PassName } from '~/catalogue/passes'
import { PASSES } from '~/catalogue/passes'
import type { CommandId } from '~/commands/commands'
import { COMMANDS, commandForInstrument, isRun } from '~/commands/commands'
import type { Findable } from '~/commands/find-by-word'
import { SETTINGS } from '~/commands/settings'
import { listDrawings } from '~/network/api'
import { useDrawingStore } from '~/stores/drawing'
import { GUIDE } from '~/stores/guide-steps'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useKeysStore } from '~/stores/keys'
import { useViewStore } from '~/stores/view'

/** Everything that can be asked for by word: passes, instruments, commands, settings, layers, inks, drawings, what the guide says. */
export function useFindables(run: (id: CommandId) => void) {
  const store = useDrawingStore()
  const view = useViewStore()
  const keys = useKeysStore()
  const inks = useInkInHand()
  const router = useRouter()
  const drawings = ref<{ id: string; name: string }[]>([])

  /** The drawings of the Desk are asked for each time: they are others by now, maybe. */
  async function look(): Promise<void> {
    drawings.value = await listDrawings().catch(() => [])
  }

  function take(pass: PassName, instrument?: string): void {
    view.pass = pass
    if (instrument) view.chosen[pass] = instrument
  }

  const titleOf = (pass: PassName): string => PASSES.find((p) => p.id === pass)!.title

  const all = computed<Findable[]>(() => [
    ...PASSES.map(({ id, title }, i) => ({
      title,
      kind: 'Pass',
      says: '',
      key: keys.keyOf(String(i + 1)).toUpperCase(),
      go: () => take(id),
    })),
    ...PASSES.flatMap(({ id: pass, title: of }) =>
      trayOf(pass).map((tool) => ({
        title: tool.title,
        kind: `Instrument of ${of}`,
        says: tool.help,
        key: keys.writtenKey(commandForInstrument(pass, tool.id)),
        go: () => take(pass, tool.id),
      })),
    ),
    ...COMMANDS.filter((c) => isRun(c.id) && !c.held).map((c) => ({
      title: c.does,
      kind: 'Command',
      says: '',
      key: keys.writtenKey(c.id as CommandId),
      go: () => run(c.id as CommandId),
    })),
    ...SETTINGS.map(({ title, says, pass, instrument }) => ({
      title,
      kind: `Setting in ${titleOf(pass)}`,
      says,
      key: '',
      go: () => {
        take(pass, instrument)
        view.stripUp = true
      },
    })),
    ...(store.drawing?.layers ?? []).map((l) => ({
      title: l.name,
      kind: 'Layer',
      says: '',
      key: '',
      go: () => (view.activeLayer = l.id),
    })),
    ...(store.drawing?.layers ?? []).flatMap((layer) =>
      layer.kind === 'lines'
        ? layer.items.flatMap((line) =>
            line.name
              ? [
                  {
                    title: line.name,
                    kind: `Line of ${layer.name}`,
                    says: '',
                    key: '',
                    go: () => view.select([line.id]),
                  },
                ]
              : [],
          )
        : [],
    ),
    ...(store.drawing?.inks ?? []).map((ink) => ({
      title: ink.name,
      kind: 'Ink',
      says: view.pass === 'fill' ? 'To be poured' : 'Of new lines',
      key: '',
      go: () => (view.pass === 'fill' ? inks.take(ink.id) : inks.takeForLines(ink.id)),
    })),
    ...drawings.value
      .filter((d) => d.id !== store.drawing?.id)
      .map((d) => ({
        title: d.name,
        kind: 'Drawing',
        says: '',
        key: '',
        go: () => router.push(`/drawings/${d.id}`),
      })),
    ...GUIDE.map((step) => {
      const says = step.says.replace(/\{(.)\}/g, (_, key: string) => keys.keyOf(key).toUpperCase())
      return { title: says, kind: 'Guide', says: '', key: '', go: () => (store.notice = says) }
    }),
  ])

  return { all, look }
}
