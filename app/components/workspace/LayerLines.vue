<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useVirtualList } from '@vueuse/core'
import { Eye, EyeOff, Lock, LockOpen } from 'lucide-vue-next'
import type { Line, LinesLayer } from '#core/model/model'
import { findLine } from '#core/model/find'
import { boxOfPath } from '#core/geometry/known'
import { pathData, short } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import RenameField from '~/components/ui/RenameField.vue'
import { useMet } from '~/workspace/use-met'

/** Height of a row, px. */
const ROW = 27

const props = defineProps<{ layer: LinesLayer }>()

/** The lines of a layer, the topmost first: found and chosen here, named, hidden or locked one by one. */
const store = useDrawingStore()
const view = useViewStore()
const naming = ref<string | null>(null)

const lines = computed(() => props.layer.items.toReversed())
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(lines, { itemHeight: ROW, overscan: 4 })
const seen = computed(() => list.value.map((row) => row.data))
const met = useMet(seen)

const box = (line: Line): string => {
  const { minX, minY, maxX, maxY } = boxOfPath(line.path)
  const side = Math.max(maxX - minX, maxY - minY, 1) * 1.25
  return [(minX + maxX - side) / 2, (minY + maxY - side) / 2, side, side].join(' ')
}
const number = (line: Line): number => props.layer.items.indexOf(line) + 1
const called = (line: Line): string => line.name ?? `Line ${number(line)}`

function change(line: Line, label: string, recipe: (line: Line) => void): void {
  store.edit(`${label} ${called(line)}`, (draft) => {
    const found = findLine(draft, line.id)
    if (found) recipe(found.line)
  })
}

const letGo = (line: Line): void => view.select(view.selection.filter((id) => id !== line.id))

function hide(line: Line): void {
  if (!line.hidden) letGo(line)
  change(line, line.hidden ? 'Show' : 'Hide', (l) => (l.hidden ? delete l.hidden : void (l.hidden = true)))
}

function lock(line: Line): void {
  if (!line.locked) letGo(line)
  change(line, line.locked ? 'Unlock' : 'Lock', (l) => (l.locked ? delete l.locked : void (l.locked = true)))
}

const rename = (line: Line, name: string): void => change(line, 'Name', (l) => void (l.name = name))

/** A click chooses a line, with Shift one more or one less. */
function choose(line: Line, more: boolean): void {
  if (line.hidden ?? line.locked) {
    const [is, way] = line.hidden ? ['hidden', 'Show it'] : ['locked', 'Unlock it']
    store.notice = `${called(line)} is ${is}. ${way} here to choose it.`
    return
  }
  const others = view.selection.filter((id) => id !== line.id)
  const isChosen = others.length < view.selection.length
  view.select(more ? (isChosen ? others : [...others, line.id]) : [line.id])
}

// What is pointed at or chosen on the canvas is brought into sight here.
watch([() => view.lineOver, () => view.selection.at(-1)], ([over, chosen], [wasOver]) => {
  const id = over !== wasOver ? over : chosen
  const at = id ? lines.value.findIndex((l) => l.id === id) : -1
  if (at >= 0 && !seen.value.some((l) => l.id === id)) scrollTo(at)
})
</script>

<template>
  <div
    v-bind="containerProps"
    class="rounded-lg border border-hair bg-raise"
    :style="{ height: `${Math.min(lines.length, 7) * ROW + 2}px` }"
    data-testid="layer-lines"
    @pointerleave="view.listedOver = null"
  >
    <p v-if="!lines.length" class="quiet px-2 py-1 text-[12px]">No line yet: lay one with Pen, Bow or Freehand.</p>
    <ul v-bind="wrapperProps" :aria-label="`Lines of ${layer.name}`">
      <li
        v-for="{ data: line } in list"
        :key="line.id"
        class="flex items-center gap-1 px-1 text-[12px]"
        :class="[
          view.selection.includes(line.id) ? 'bg-blush' : view.lineOver === line.id ? 'bg-panel' : '',
          line.hidden ? 'text-mute' : '',
        ]"
        :style="{ height: `${ROW}px` }"
        :data-line="line.id"
        @pointerenter="view.listedOver = line.id"
      >
        <svg class="h-5 w-5 shrink-0" :viewBox="box(line)" aria-hidden="true">
          <path
            :d="pathData(line.path, 1)"
            fill="none"
            stroke="currentColor"
            stroke-width="1.5"
            vector-effect="non-scaling-stroke"
          />
        </svg>
        <RenameField
          v-if="naming === line.id"
          class="min-w-0 flex-1"
          :value="line.name ?? ''"
          label="Name of the line"
          :longest="120"
          @keep="rename(line, $event)"
          @close="naming = null"
        />
        <button
          v-else
          class="min-w-0 flex-1 truncate text-left"
          :aria-pressed="view.selection.includes(line.id)"
          :title="`${called(line)} · ${short(line.weight.size, 2)} px${met(line.id)} · Click: choose · Shift+click: add or leave out · Double-click: name`"
          @click="choose(line, $event.shiftKey)"
          @dblclick="naming = line.id"
          @focus="view.listedOver = line.id"
        >
          {{ called(line) }}<span class="quiet">{{ met(line.id) }}</span>
        </button>
        <span class="number quiet text-[11px]">{{ short(line.weight.size, 1) }}</span>
        <button
          class="quiet rounded p-0.5"
          :class="line.hidden ? 'text-plum' : ''"
          :title="line.hidden ? 'Show' : 'Hide this line alone'"
          :aria-label="`${line.hidden ? 'Show' : 'Hide'} ${called(line)}`"
          @click="hide(line)"
        >
          <component :is="line.hidden ? EyeOff : Eye" :size="13" :stroke-width="1.7" />
        </button>
        <button
          class="quiet rounded p-0.5"
          :class="line.locked ? 'text-plum' : ''"
          :title="line.locked ? 'Unlock' : 'Lock this line alone'"
          :aria-label="`${line.locked ? 'Unlock' : 'Lock'} ${called(line)}`"
          @click="lock(line)"
        >
          <component :is="line.locked ? Lock : LockOpen" :size="13" :stroke-width="1.7" />
        </button>
      </li>
    </ul>
  </div>
</template>
