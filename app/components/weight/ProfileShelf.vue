<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { Line, Weight } from '#core/model/model'
import { evenWeight, newLine, roundFinish } from '#core/model/create'
import { pathData } from '#core/geometry/path'
import { expandLine } from '#core/outline/expand'
import { follows, withProfile } from '#core/weight/shelf'
import type { ShelfProfile } from '#core/weight/shelf'
import ShelfMenu from './ShelfMenu.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { usePeek } from '~/workspace/use-peek'
import { useShelfStore } from '~/stores/shelf'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { remembered } from '#core/remembered'

/** With `wraps` in as many rows as it takes, else in one. */
const props = defineProps<{ wraps?: boolean }>()

/** Profiles wider than this are drawn smaller. */
const MOST_SHOWN = 1.4

const view = useViewStore()
const shelf = useShelfStore()
const studio = useStudioStore()
const chosen = useChosenLines()
const { lines, peek, lookAway } = usePeek()

/** Each profile drawn by the real engine on a short straight line; one that stays the same is drawn once. */
const drawnBy = remembered((profile: ShelfProfile): string => {
  const line = newLine(
    {
      nodes: [
        { at: { x: 2, y: 8 }, in: null, out: null, joint: 'corner' },
        { at: { x: 36, y: 8 }, in: null, out: null, joint: 'corner' },
      ],
      closed: false,
    },
    {
      weight: fittedIn(withProfile(evenWeight(9), profile)),
      finish: { ...roundFinish(), startCap: 'butt', endCap: 'butt' },
    },
  )
  return expandLine(line, { tolerance: 0.05 })
    .map((c) => pathData(c, 2))
    .join('')
})

/** The widest place of a profile fills the little picture, and no more. */
function fittedIn(weight: Weight): Weight {
  const most = Math.max(...weight.stops.map((s) => Math.max(s.left, s.right)))
  return most > MOST_SHOWN ? { ...weight, size: (weight.size * MOST_SHOWN) / most } : weight
}

const chips = computed(() => shelf.all.map((profile) => ({ profile, data: drawnBy(profile) })))

onMounted(() => void shelf.load())

const forSelection = computed(() => chosen.lines.value.length > 0)

/** The profile that the chosen lines follow, or that of the next line. */
const on = computed(() => {
  if (!forSelection.value) return studio.preferences.profile
  return shelf.all.find((p) => lines.value.every((l) => follows(l.weight, p)))?.id ?? null
})
const isOn = (profile: ShelfProfile): boolean => on.value === profile.id

const withIt =
  (profile: ShelfProfile) =>
  (line: Line): void =>
    void (line.weight = withProfile(line.weight, profile))

function look(profile: ShelfProfile): void {
  if (forSelection.value && !isOn(profile)) peek(withIt(profile))
}

function take(profile: ShelfProfile): void {
  lookAway()
  studio.takeProfile(profile)
  if (!forSelection.value) return
  view.stop = null
  chosen.change(`Profile: ${profile.name}`, withIt(profile))
}
</script>

<template>
  <div class="flex gap-1.5" :class="props.wraps ? 'max-h-full items-start' : 'items-center'">
    <div
      class="-m-0.5 flex min-w-0 flex-1 gap-1.5 p-0.5 [scrollbar-width:none]"
      :class="props.wraps ? 'max-h-[164px] flex-wrap content-start overflow-y-auto' : 'overflow-x-auto'"
      role="group"
      aria-label="Profiles"
    >
      <button
        v-for="{ profile, data } in chips"
        :key="profile.id"
        class="grid h-[30px] w-[42px] shrink-0 place-items-center rounded-[7px] border border-hair bg-raise hover:border-mute"
        :class="isOn(profile) ? 'outline-2 -outline-offset-1 outline-plum' : ''"
        :aria-pressed="isOn(profile)"
        :title="forSelection ? `${profile.name}: put on the chosen lines` : `${profile.name}: for the next line`"
        :aria-label="profile.name"
        @pointerenter="look(profile)"
        @pointerleave="lookAway"
        @focus="look(profile)"
        @blur="lookAway"
        @click="take(profile)"
      >
        <svg width="38" height="16" viewBox="0 0 38 16" aria-hidden="true"><path :d="data" class="fill-ink" /></svg>
      </button>
    </div>
    <ShelfMenu />
  </div>
</template>
