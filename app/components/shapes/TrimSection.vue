<script setup lang="ts">
import { computed } from 'vue'
import { useDrawingStore } from '~/stores/drawing'
import { useInk } from '~/workspace/use-ink'

/** What is trimmed, and the ways back. */
const store = useDrawingStore()
const ink = useInk()

const all = computed(() => store.drawing!.amendments?.filter((a) => a.kind === 'trim') ?? [])
const waiting = computed(() => new Set(ink.trims.value.filter((t) => !t.piece).map((t) => t.trim.id)))
const pieces = (n: number): string => `${n} ${n === 1 ? 'piece' : 'pieces'}`

function bringBack(label: string, isMeant: (id: string) => boolean): void {
  store.edit(
    label,
    (draft) => void (draft.amendments = draft.amendments?.filter((a) => a.kind !== 'trim' || !isMeant(a.id))),
  )
}
</script>

<template>
  <div class="grid max-w-[760px] content-start gap-2">
    <b class="flex h-7 items-center font-[650]">Trim</b>
    <p class="quiet">
      Where outlines overlap they divide each other into pieces. A click takes a piece away from one line only, the
      front one or the chosen one; the line stays whole beneath, and the piece stays away when you mend it.
    </p>
    <p v-if="all.length" class="flex items-center gap-4" data-testid="trims">
      <span
        ><span class="number">{{ all.length }}</span> trimmed, shown hatched<template v-if="waiting.size"
          >, <span class="number">{{ waiting.size }}</span> waiting: the piece is gone for now</template
        ></span
      >
      <button class="button !py-0.5" @click="bringBack(`Bring ${pieces(all.length)} back`, () => true)">
        Bring all back
      </button>
      <button
        v-if="waiting.size"
        class="button !py-0.5"
        @click="bringBack(`Forget ${pieces(waiting.size)} that waited`, (id) => waiting.has(id))"
      >
        Forget those waiting
      </button>
    </p>
    <p v-else class="quiet">Nothing is trimmed yet.</p>
  </div>
</template>
