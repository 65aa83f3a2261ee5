<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref, watch } from 'vue'
import type { Finish, Line, Rough } from '#core/model/model'
import { arcOfPath } from '#core/geometry/known'
import { dashCount, MOST_DASHES } from '#core/outline/visible'
import { dashFrom, dashText } from '#core/weight/dash'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { usePeek } from '~/workspace/use-peek'
import { usePlaced } from '~/workspace/use-placed'

/** How the chosen lines end, turn and run: caps, joins, alignment, dashes and the unevenness of their edges. */
const CAPS = [
  { id: 'butt', title: 'Flat' },
  { id: 'round', title: 'Round' },
  { id: 'square', title: 'Square' },
] as const
const JOINS = [
  { id: 'round', title: 'Round' },
  { id: 'miter', title: 'Miter' },
  { id: 'bevel', title: 'Bevel' },
] as const
const SIDES = [
  { id: 'left', title: 'Left', help: 'All of the width lies left of the path' },
  { id: 'centre', title: 'Centre' },
  { id: 'right', title: 'Right', help: 'All of the width lies right of the path' },
] as const
const USUAL_ROUGH: Rough = { amount: 0.8, grain: 7, seed: 1 }

const store = useDrawingStore()
const studio = useStudioStore()
const chosen = useChosenLines()
const { lines, peek, lookAway } = usePeek()
const finish = computed(() => lines.value[0]?.finish ?? null)

const pattern = ref('')
watch([() => finish.value?.dash], () => (pattern.value = dashText(finish.value?.dash ?? [])), { immediate: true })

const withFinish =
  (change: Partial<Finish>) =>
  (line: Line): void =>
    void Object.assign(line.finish, change)
const look = (change: Partial<Finish>): void => chosen.preview(withFinish(change))

function keep(label: string, change: Partial<Finish>): void {
  lookAway()
  chosen.change(label, withFinish(change))
}

const keepCap = (end: 'startCap' | 'endCap', cap: Finish['startCap']): void =>
  keep(`Cap: ${CAPS.find((c) => c.id === cap)!.title.toLowerCase()}`, { [end]: cap })

function keepRough(change: Partial<Rough> | null): void {
  if (change) keep('Roughness', { rough: { ...(finish.value?.rough ?? USUAL_ROUGH), ...change } })
  else chosen.change('Smooth edges', (l) => void delete l.finish.rough)
}

const lookRough = (change: Partial<Rough>): void =>
  look({ rough: { ...(finish.value?.rough ?? USUAL_ROUGH), ...change } })

function keepDash(): void {
  const size = chosen.lines.value[0]?.weight.size ?? studio.preferences.size
  try {
    const dash = dashFrom(pattern.value, size)
    if (JSON.stringify(dash) !== JSON.stringify(finish.value?.dash))
      keep(dash.length ? 'Dashes' : 'No dashes', { dash })
    const most = Math.max(...lines.value.map((l) => dashCount(dash, arcOfPath(l.path).total)))
    if (most > MOST_DASHES)
      store.notice = `This pattern would make ${Math.round(most)} dashes of a line. Up to ${MOST_DASHES} are drawn, so it stays whole: take longer dashes or gaps.`
  } catch (e) {
    store.notice = (e as Error).message
  }
  pattern.value = dashText(finish.value?.dash ?? [])
}

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover class="relative">
    <PopoverButton ref="anchor" class="quiet" :disabled="!finish" title="Caps, joins, alignment, dashes and rough edges"
      >Finish</PopoverButton
    >
    <PopoverPanel
      ref="panel"
      v-if="finish"
      :style="styles"
      class="pop grid w-[760px] grid-cols-2 max-md:flex max-md:w-[380px] max-md:flex-col gap-x-8 gap-y-2 p-4"
    >
      <ChoiceField
        label="Start cap"
        :choices="CAPS"
        :model-value="finish.startCap"
        @look="(startCap) => peek(withFinish({ startCap }))"
        @away="lookAway"
        @update:model-value="(cap) => keepCap('startCap', cap)"
      />
      <ChoiceField
        label="End cap"
        :choices="CAPS"
        :model-value="finish.endCap"
        @look="(endCap) => peek(withFinish({ endCap }))"
        @away="lookAway"
        @update:model-value="(cap) => keepCap('endCap', cap)"
      />
      <ChoiceField
        label="Join"
        :choices="JOINS"
        :model-value="finish.join"
        @look="(join) => peek(withFinish({ join }))"
        @away="lookAway"
        @update:model-value="(join) => keep(`Join: ${join}`, { join })"
      />
      <SliderField
        label="Miter limit"
        title="Corners sharper than this become bevels"
        :value="finish.miterLimit"
        :min="1"
        :max="20"
        :step="0.5"
        :digits="1"
        :disabled="finish.join !== 'miter'"
        @look="(v) => look({ miterLimit: v })"
        @keep="(v) => keep('Miter limit', { miterLimit: v })"
      />
      <ChoiceField
        label="Lies"
        :choices="SIDES"
        :model-value="finish.align"
        @look="(align) => peek(withFinish({ align }))"
        @away="lookAway"
        @update:model-value="(align) => keep(`Alignment: ${align}`, { align })"
      />
      <label
        class="flex items-center gap-2.5"
        title="Lengths of dashes and gaps in turn, px. Empty: a whole line. With x they are multiples of the size: 2x 1x"
      >
        <span class="w-[92px] shrink-0">Dashes</span>
        <input
          v-model="pattern"
          class="field number min-w-0 flex-1"
          placeholder="whole line, or 12 6, or 2x 1x"
          aria-label="Dashes"
          data-testid="dash"
          @change="keepDash"
          @keydown.enter="($event.target as HTMLInputElement).blur()"
        />
      </label>
      <div class="col-span-2 mt-1 border-t border-hair pt-2.5">
        <TickField :model-value="!!finish.rough" @update:model-value="(on) => keepRough(on ? {} : null)"
          ><b class="font-[650]">Rough edges</b></TickField
        >
      </div>
      <template v-if="finish.rough">
        <SliderField
          label="Amount"
          :value="finish.rough.amount"
          :min="0"
          :max="5"
          :step="0.1"
          :digits="1"
          unit="px"
          @look="(v) => lookRough({ amount: v })"
          @keep="(v) => keepRough({ amount: v })"
        />
        <SliderField
          label="Grain"
          :value="finish.rough.grain"
          :min="1"
          :max="60"
          :step="1"
          unit="px"
          @look="(v) => lookRough({ grain: v })"
          @keep="(v) => keepRough({ grain: v })"
        />
        <button
          class="button justify-self-start"
          title="Another edge of the same kind"
          @click="keepRough({ seed: (finish.rough.seed % 9999) + 1 })"
        >
          Another edge
        </button>
        <span class="quiet number self-center">edge {{ finish.rough.seed }}</span>
      </template>
    </PopoverPanel>
  </Popover>
</template>
