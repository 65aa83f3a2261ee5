<script setup lang="ts">
import { computed } from 'vue'
import { takeAlong } from '#core/repetition/rules'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useCopiesStore } from '~/stores/copies'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** What is mirrored or repeated: how, which lines go along, and what becomes of what stands there. */
const { preferences } = useStudioStore()
const copies = useCopiesStore()
const view = useViewStore()

const rule = computed(() => copies.inHand)
const title = computed(() => {
  if (!rule.value) return ''
  const n = rule.value.lines.length
  const lines = `${n} ${n === 1 ? 'line goes' : 'lines go'} along`
  return rule.value.kind === 'mirror' ? `At this axis: ${lines}` : `About this point: ${lines}`
})
const goAlong = computed(() => view.selection.filter((id) => !rule.value?.lines.includes(id)))
const stay = computed(() => view.selection.filter((id) => rule.value?.lines.includes(id)))

const times = computed({
  get: () => (rule.value?.kind === 'repeat' ? rule.value.times : preferences.copies.times),
  set: (n: number) => {
    preferences.copies.times = n
    if (rule.value?.kind === 'repeat')
      copies.change(`Repeat ${n} times`, (r) => {
        if (r.kind !== 'repeat') return
        r.times = n
        if (r.left) r.left = r.left.filter((k) => k < n)
      })
  },
})
const fresh = computed({
  get: () => rule.value?.fresh === true,
  set: (on: boolean) =>
    copies.change(on ? 'What is drawn goes along' : 'What is drawn stays alone', (r) => {
      if (on) r.fresh = true
      else delete r.fresh
    }),
})
const take = (ids: readonly string[], goes: boolean): void =>
  copies.change(goes ? 'Take lines along' : 'Leave lines alone', (r) => takeAlong(r, ids, goes))
</script>

<template>
  <div class="grid content-start gap-2.5">
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <ChoiceField
        v-model="preferences.copies.way"
        tight
        label="The next"
        :choices="[
          {
            id: 'mirror',
            title: 'Mirror',
            help: 'At an axis: drag it, click a line, or click where it stands upright',
          },
          { id: 'repeat', title: 'Repeat', help: 'About a point: click it' },
        ]"
      />
      <SliderField
        v-if="preferences.copies.way === 'repeat' || rule?.kind === 'repeat'"
        label="Times"
        :value="times"
        :min="2"
        :max="24"
        :step="1"
        :digits="0"
        @keep="times = Math.round($event)"
      />
      <TickField v-if="rule" v-model="fresh">What is drawn goes along</TickField>
    </div>
    <div v-if="rule" class="flex flex-wrap items-center gap-x-3 gap-y-2">
      <span class="number" data-testid="rule">{{ title }}</span>
      <button v-if="goAlong.length" class="button" @click="take(goAlong, true)">Take what is chosen along</button>
      <button v-if="stay.length" class="button" @click="take(stay, false)">Leave what is chosen alone</button>
      <button
        class="button"
        title="What stands there becomes lines like others; nothing looks different"
        @click="copies.free(rule.id)"
      >
        Set all free
      </button>
      <button class="button" title="What it made goes; what was drawn stays" @click="copies.takeAway()">
        {{ rule.kind === 'mirror' ? 'Mirror no more' : 'Repeat no more' }}
      </button>
    </div>
    <p v-else class="quiet max-w-[560px]">
      One side is drawn, the other follows at once. Lines that end on the axis are joined across it. Choose lines first,
      or lay the axis and draw.
    </p>
  </div>
</template>
