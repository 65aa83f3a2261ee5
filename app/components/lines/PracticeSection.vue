<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { pathData } from '#core/geometry/path'
import { boxOfPoints } from '#core/geometry/bounds'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import type { PracticeTrace } from '~/stores/practice'
import { usePracticeStore } from '~/stores/practice'
import { useStudioStore } from '~/stores/studio'
import { isInkml, readTraces } from '~/workspace/use-traces-import'

const store = useDrawingStore()
const practice = usePracticeStore()
const studio = useStudioStore()
const picker = ref<HTMLInputElement>()

const WIDTH = 60
const HEIGHT = 40

const chips = computed(() => practice.traces.map((t) => ({ ...t, data: thumbnail(t) })))

/** The way of a trace in a small box. */
function thumbnail({ samples }: PracticeTrace): string {
  const box = boxOfPoints(samples)
  const k = Math.min((WIDTH - 10) / (box.maxX - box.minX || 1), (HEIGHT - 10) / (box.maxY - box.minY || 1))
  const [mx, my] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]
  const nodes = samples.map((s) => ({
    at: { x: WIDTH / 2 + (s.x - mx) * k, y: HEIGHT / 2 + (s.y - my) * k },
    in: null,
    out: null,
    joint: 'corner' as const,
  }))
  return pathData({ nodes, closed: false }, 1)
}

async function pick(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    if (!isInkml(file)) throw new Error(`"${file.name}" is no InkML file. Choose one that ends in .inkml.`)
    const traces = await readTraces(file)
    if (!traces.some((t) => t.length > 1)) throw new Error(`"${file.name}" holds no trace with more than one point.`)
    practice.add(file.name.replace(/\.[^.]*$/, '').slice(0, 40), traces)
  } catch (error) {
    store.notice = (error as Error).message
  }
}

onMounted(() => void practice.load())
</script>

<template>
  <div class="col-span-2 grid gap-2.5">
    <p v-if="practice.failure" class="text-brick" role="alert">{{ practice.failure }}</p>
    <div class="flex max-w-full gap-1.5 overflow-x-auto p-0.5" role="group" aria-label="Traces">
      <button
        v-for="t in chips"
        :key="t.id"
        class="flex w-[77px] shrink-0 flex-col items-center rounded-[8px] border bg-raise pb-0.5 text-[11px]"
        :class="practice.chosen?.id === t.id ? 'border-plum text-plum' : 'border-hair hover:border-mute'"
        :aria-pressed="practice.chosen?.id === t.id"
        :title="`${t.title}: ${t.samples.length} samples`"
        @click="studio.preferences.practice.trace = t.id"
      >
        <svg :width="WIDTH" :height="HEIGHT" aria-hidden="true">
          <path :d="t.data" fill="none" class="stroke-ink" stroke-width="1.3" />
        </svg>
        <span class="max-w-full truncate px-1">{{ t.title }}</span>
      </button>
    </div>
    <div class="flex items-center gap-5">
      <TickField v-model="studio.preferences.practice.fast">Eight times as fast</TickField>
      <button class="button" @click="picker?.click()">Bring in InkML …</button>
      <input
        ref="picker"
        type="file"
        accept=".inkml,.ink,application/inkml+xml"
        class="hidden"
        data-testid="inkml-picker"
        @change="pick"
      />
      <span class="quiet">Drawn with the steadiness, nib and pressure that Freehand has.</span>
    </div>
  </div>
</template>
