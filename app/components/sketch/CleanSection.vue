<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import type { CleanSettings, Sketch } from '#core/model/model'
import { CLEAN } from '#core/sketch/clean'
import ColourPicker from '~/components/ui/ColourPicker.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { changeSketch } from '#core/editing/change-items'
import { usePlaced } from '~/workspace/use-placed'

/** How a sketch is made clean: paper evened out and white, pencil as strong as it is wanted. */
const props = defineProps<{ sketch: Sketch }>()
const store = useDrawingStore()
const clean = computed(() => props.sketch.clean ?? null)

function change(to: Partial<CleanSettings> | null): void {
  store.change((draft) => {
    changeSketch(draft, props.sketch.id, ({ clean: was, ...s }) =>
      to ? { ...s, clean: { ...CLEAN, ...was, ...to } } : s,
    )
  })
}
function keep(label: string, to: Partial<CleanSettings> | null): void {
  change(to)
  store.finish(label)
}
const percent = (v: number): number => Math.round(v * 100)

/** The tints that pencils have; any other by the picker. */
const TINTS = [
  { tint: undefined, title: 'Graphite', colour: '#3a3632' },
  { tint: '#3f6fb5', title: 'Cool blue', colour: '#3f6fb5' },
  { tint: '#b5533f', title: 'Warm red', colour: '#b5533f' },
]
function tint(to: string | undefined): void {
  store.change((draft) => {
    changeSketch(draft, props.sketch.id, (s) => {
      if (!s.clean) return s
      const clean = { ...s.clean }
      if (to) clean.tint = to
      else delete clean.tint
      return { ...s, clean }
    })
  })
  store.finish('Tint of the pencil')
}

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <div class="grid content-start gap-1.5">
    <div class="flex h-7 items-center gap-2.5">
      <button
        v-if="!clean"
        class="button-strong !py-1"
        title="Paper white, shadow evened out, specks out"
        data-testid="clean"
        @click="keep('Clean the sketch', {})"
      >
        Clean it
      </button>
      <slot v-if="!clean" />
      <template v-else>
        <button class="button" @click="keep('Sketch as it came', null)">As it came</button>
        <TickField
          :model-value="clean.even"
          title="Light and shadow on the paper are divided away"
          @update:model-value="(v) => keep(v ? 'Even out light and shadow' : 'Leave light and shadow', { even: !!v })"
          >Even out light</TickField
        >
        <span class="ml-auto flex items-center gap-1" role="radiogroup" aria-label="Tint of the pencil">
          <button
            v-for="t in TINTS"
            :key="t.title"
            class="h-6 w-6 rounded-full border-2"
            :class="clean.tint === t.tint ? 'border-plum' : 'border-hair'"
            role="radio"
            :aria-checked="clean.tint === t.tint"
            :aria-label="t.title"
            :title="t.title"
            :style="{ background: t.colour }"
            @click="tint(t.tint)"
          />
          <Popover class="relative">
            <PopoverButton ref="anchor" class="button !px-2 !py-0.5 text-[12px]" title="Any colour"
              >Other</PopoverButton
            >
            <PopoverPanel ref="panel" :style="styles" class="pop w-[270px] p-3">
              <ColourPicker
                :colour="clean.tint ?? TINTS[0]!.colour"
                @look="(c) => change({ tint: c })"
                @keep="store.finish('Tint of the pencil')"
              />
            </PopoverPanel>
          </Popover>
        </span>
      </template>
    </div>
    <div v-if="clean" class="grid grid-cols-2 gap-x-5 gap-y-1">
      <SliderField
        label="White from"
        title="What is no darker than this against the paper is white"
        :value="percent(clean.white)"
        :min="0"
        :max="60"
        :step="1"
        unit="%"
        @look="(v) => change({ white: v / 100 })"
        @keep="(v) => keep(`White from ${v} %`, { white: v / 100 })"
      />
      <SliderField
        label="Dark from"
        title="What is darker than this is as dark as can be"
        :value="percent(clean.black)"
        :min="5"
        :max="100"
        :step="1"
        unit="%"
        @look="(v) => change({ black: v / 100 })"
        @keep="(v) => keep(`Dark from ${v} %`, { black: v / 100 })"
      />
      <SliderField
        label="Pencil"
        title="Above 1 faint pencil becomes stronger"
        :value="clean.pencil"
        :min="0.2"
        :max="4"
        :step="0.1"
        :digits="1"
        @look="(v) => change({ pencil: v })"
        @keep="(v) => keep('Strength of the pencil', { pencil: v })"
      />
      <SliderField
        label="Specks to"
        title="Smaller specks go"
        :value="clean.specks"
        :min="0"
        :max="60"
        :step="1"
        unit="px"
        @look="(v) => change({ specks: v })"
        @keep="(v) => keep(`Specks to ${v} px`, { specks: v })"
      />
    </div>
    <p v-else class="quiet">
      A scan or a photo with grey paper? Made clean, its paper is white and its pencil plain. The picture itself stays
      as it is.
    </p>
  </div>
</template>
