<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { History, X } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { letStepsGo } from '~/network/api'
import { useCompareStore } from '~/stores/compare'
import { useDrawingStore } from '~/stores/drawing'
import { useLookStore } from '~/stores/look'
import { passOf } from '~/catalogue/passes'
import { groupSteps, stepsOf } from '~/workspace/step-groups'
import CheckpointPicture from './CheckpointPicture.vue'
import { useKeysStore } from '~/stores/keys'
import { usePlaced } from '~/workspace/use-placed'

const MOST_SHOWN = 200
/** Steps that are older than this can be let go, days. */
const OLD = 30

const store = useDrawingStore()
const keys = useKeysStore()
const compare = useCompareStore()
const look = useLookStore()
const name = ref('')
const asking = ref(false)

async function keep(): Promise<void> {
  const given = name.value.trim() || `Checkpoint ${compare.checkpoints.length + 1}`
  name.value = ''
  await compare.keep(given)
}

const steps = computed(() => stepsOf(store.history, store.madeAt))
const groups = computed(() => groupSteps(steps.value.slice(0, MOST_SHOWN)))

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

function span(from: string | null, to: string | null): string {
  if (!from || !to) return ''
  const [a, b] = [new Date(from), new Date(to)]
  const date = day.format(b) === day.format(new Date()) ? '' : `${day.format(b)}, `
  return `${date}${time.format(a)}${time.format(a) === time.format(b) ? '' : ` to ${time.format(b)}`}`
}

async function letGo(): Promise<void> {
  asking.value = false
  try {
    await store.allSent()
    const { gone } = await letStepsGo(store.drawing!.id, new Date(Date.now() - OLD * 24 * 60 * 60_000).toISOString())
    const { id } = store.drawing!
    if (gone) await store.open(id)
    store.notice = gone
      ? `${gone} old ${gone === 1 ? 'step was' : 'steps were'} let go. The drawing and its checkpoints are as they were.`
      : `There are no steps older than ${OLD} days that could be let go.`
  } catch (e) {
    store.notice = (e as Error).message
  }
}

const { anchor, panel, styles } = usePlaced('bottom-end')
</script>

<template>
  <Popover class="relative">
    <PopoverButton ref="anchor" class="button max-lg:px-2" aria-label="History"
      ><History :size="16" class="lg:hidden" /><span class="max-lg:hidden">History</span></PopoverButton
    >
    <PopoverPanel
      ref="panel"
      :style="styles"
      v-slot="{ close }"
      class="pop w-[min(340px,calc(100vw-16px))] p-1.5"
      data-testid="history"
    >
      <form class="flex gap-1.5 p-1" @submit.prevent="keep">
        <input
          v-model="name"
          class="field min-w-0 flex-1"
          maxlength="80"
          placeholder="Name this moment"
          aria-label="Name of the checkpoint"
        />
        <button class="button" type="submit" title="Keep a checkpoint of the drawing as it is now">Keep</button>
      </form>
      <ul v-if="compare.checkpoints.length" class="border-b border-hair pb-1.5" aria-label="Checkpoints">
        <li
          v-for="c in compare.checkpoints"
          :key="c.id"
          class="group flex items-center gap-2 rounded-lg px-2 py-1 hover:bg-panel"
        >
          <button
            class="flex min-w-0 flex-1 items-center gap-2.5 text-left"
            :title="`Look at ${c.name}, without going back`"
            @click="(look.lookAtCheckpoint(c), close())"
          >
            <CheckpointPicture :drawing="store.drawing!.id" :checkpoint="c.id" />
            <span class="min-w-0"
              ><span class="block truncate font-[650]">{{ c.name }}</span
              ><span class="quiet block text-[12px]">{{ span(c.madeAt, c.madeAt) }}</span></span
            >
          </button>
          <button
            class="quiet hover:text-ink"
            :aria-label="`Compare ${c.name} with now`"
            @click="(compare.between(c.id, 'now'), close())"
          >
            Compare
          </button>
          <button
            class="quiet hover:text-ink"
            :aria-label="`Forget ${c.name}`"
            title="Forget this checkpoint; the history stays"
            @click="compare.forget(c.id)"
          >
            <X :size="14" />
          </button>
        </li>
      </ul>
      <button
        class="flex w-full rounded-lg px-2 py-1.5 text-left hover:bg-panel"
        :title="`Hold ${keys.writtenKey('before')} to look for a moment, ${keys.writtenKey('even')} for even weight`"
        @click="(compare.between('before', 'now'), close())"
      >
        Compare with before this visit
      </button>
      <p v-if="!steps.length" class="quiet p-2">
        Every step you take is listed here and can be taken back, also next week.
      </p>
      <section v-for="g in groups" :key="g.key" :aria-label="g.pass ? passOf(g.pass).title : 'Steps'">
        <h3 class="flex items-baseline justify-between px-2 pt-2 pb-0.5 text-[12px] text-mute-deep">
          <span class="font-[650]"
            >{{ g.pass ? passOf(g.pass).title : 'Earlier' }}{{ g.steps[0]!.done ? '' : ', undone' }}</span
          ><span class="number">{{ span(g.from, g.to) }}</span>
        </h3>
        <button
          v-for="step in g.steps"
          :key="step.id"
          class="flex w-full items-center gap-2 rounded-lg px-2 py-1 text-left hover:bg-panel"
          :class="step.done ? '' : 'text-mute italic'"
          :title="step.walk ? 'Look at this step, without going back' : 'The drawing as it is now'"
          :disabled="step.walk === 0 && step.done"
          @click="(look.lookAtStep(step.walk, step.label, step.madeAt), close())"
        >
          <span
            class="h-1.5 w-1.5 shrink-0 rounded-full"
            :class="step.walk === 0 && step.done ? 'bg-plum' : 'bg-hair'"
          />
          <span class="truncate">{{ step.label }}</span>
          <span v-if="step.walk === 0 && step.done" class="quiet ml-auto text-[12px]">now</span>
        </button>
      </section>
      <div class="mt-1.5 flex flex-wrap items-center gap-3 border-t border-hair px-2 py-1.5 text-[12px]">
        <button
          v-if="store.hasOlder"
          class="text-mute-deep underline decoration-dotted hover:text-ink"
          @click="store.fetchOlder()"
        >
          Earlier steps
        </button>
        <template v-if="asking">
          <span class="basis-full"
            >Steps older than <span class="number">{{ OLD }}</span> days cannot be taken back then. The drawing and its
            checkpoints stay.</span
          >
          <button class="font-semibold text-brick" @click="letGo">Let them go</button>
          <button class="text-mute-deep hover:text-ink" @click="asking = false">Keep them</button>
        </template>
        <button v-else class="text-mute-deep underline decoration-dotted hover:text-ink" @click="asking = true">
          Let old steps go …
        </button>
      </div>
    </PopoverPanel>
  </Popover>
</template>
