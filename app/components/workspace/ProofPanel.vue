<script setup lang="ts">
import { computed, ref } from 'vue'
import { ChevronDown } from 'lucide-vue-next'
import type { FindingKind, ProofLimits } from '#core/proof/finding'
import { LIMITS } from '#core/proof/finding'
import NumberField from '~/components/ui/NumberField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { KIND_WORDS, useProofStore } from '~/stores/proof'
import { useRemembered } from '~/stores/remembered'
import FindingPicture from './FindingPicture.vue'
import { useKeysStore } from '~/stores/keys'

/** What there is to look at, in every pass: a row a kind, opened its findings. */
const emit = defineEmits<{ go: [key: string] }>()
const store = useDrawingStore()
const keys = useKeysStore()
const proof = useProofStore()
const folds = useRemembered('proof', { folded: false })
const opened = ref<FindingKind | 'left' | 'limits' | null>(null)
/** So many findings of a kind are listed. */
const MOST = 40

const LIMIT_WORDS = [
  { id: 'thin', title: 'Thin under', unit: 'mm' },
  { id: 'gap', title: 'Gap up to', unit: 'mm' },
  { id: 'contrast', title: 'Thick to thin', unit: 'x' },
  { id: 'speck', title: 'Speck under', unit: 'mm²' },
  { id: 'sliver', title: 'Paper under', unit: 'mm' },
  { id: 'open', title: 'Open by up to', unit: 'mm' },
] as const
const limits = computed(() => ({ ...LIMITS, ...store.drawing!.settings.proof }))

/** Limits are the drawing's own; those out of range are brought into it. */
function setLimit(id: keyof ProofLimits, title: string, value: number): void {
  const kept = Math.min(100, Math.max(id === 'contrast' ? 1 : 0, value))
  store.edit(
    `Proof: ${title.toLowerCase()} ${kept}`,
    (draft) => void (draft.settings.proof = { ...draft.settings.proof, [id]: kept }),
  )
}

const toggle = (kind: FindingKind | 'left' | 'limits'): void =>
  void (opened.value = opened.value === kind ? null : kind)
</script>

<template>
  <section class="flex max-h-[46%] min-h-0 flex-col border-b border-hair" aria-label="Proof">
    <h2 class="flex items-center px-3.5 pt-1.5 pb-1 text-[12px] font-[650]">
      <button class="flex h-6 items-center gap-1" :aria-expanded="!folds.folded" @click="folds.folded = !folds.folded">
        Proof <ChevronDown :size="13" class="text-mute" :class="folds.folded && '-rotate-90'" />
      </button>
      <span v-if="!proof.found" class="number ml-auto text-[11px] text-mute-deep">looking …</span>
      <span v-else-if="proof.open.length" class="number ml-auto text-[11px] text-amber-deep" data-testid="proof-count"
        >{{ proof.open.length }} to look at</span
      >
      <span
        v-else
        class="number ml-auto text-[11px] text-moss"
        title="No blunt ends, gaps, specks or thin places"
        data-testid="proof-count"
        >nothing to look at</span
      >
    </h2>
    <div
      v-if="!folds.folded && (proof.kinds.length || proof.left.length || proof.trying)"
      class="min-h-0 overflow-auto pb-1.5"
    >
      <div
        v-if="proof.trying"
        class="mx-2.5 mb-1.5 rounded-[8px] border border-plum bg-raise px-2.5 py-1.5"
        role="status"
        data-testid="proof-trial"
      >
        <p>{{ proof.trying.summary }}</p>
        <p class="mt-1 flex justify-end gap-2.5">
          <button class="quiet h-6" title="Esc" @click="proof.drop()">Not now</button>
          <button
            class="button-strong !py-0.5"
            title="Enter"
            :disabled="!proof.trying.findings.length"
            @click="proof.accept()"
          >
            Accept
          </button>
        </p>
      </div>
      <ul>
        <li v-for="row in proof.kinds" :key="row.kind">
          <div class="flex items-center gap-2 px-3.5 py-px hover:bg-raise">
            <span class="h-[7px] w-[7px] shrink-0 rotate-45 bg-amber" aria-hidden="true" />
            <button
              class="flex h-6 min-w-0 flex-1 items-center gap-1.5 text-left"
              :aria-expanded="opened === row.kind"
              @click="toggle(row.kind)"
            >
              <span class="truncate">{{ KIND_WORDS[row.kind].title }}</span>
              <span class="number text-[11px] text-mute-deep">{{ row.findings.length }}</span>
            </button>
            <button
              v-if="row.mendable"
              class="h-6 font-[650] text-plum hover:underline"
              :title="`${KIND_WORDS[row.kind].mend} all ${row.mendable}: shown first, nothing is done until you accept`"
              @click="proof.tryMend(row.findings)"
            >
              {{ KIND_WORDS[row.kind].mend }}
            </button>
          </div>
          <ul v-if="opened === row.kind" class="pb-1">
            <li
              v-for="f in row.findings.slice(0, MOST)"
              :key="f.key"
              class="flex items-center gap-2 py-0.5 pr-3.5 pl-[29px]"
              :class="proof.current === f.key && 'bg-blush'"
            >
              <button
                :title="'Go there'"
                :aria-label="`Go to: ${KIND_WORDS[row.kind].title}`"
                @click="emit('go', f.key)"
              >
                <FindingPicture :at="f.at" />
              </button>
              <span class="ml-auto flex gap-2.5">
                <button v-if="f.mend" class="h-6 text-plum hover:underline" @click="proof.tryMend([f])">
                  {{ KIND_WORDS[row.kind].mend }}
                </button>
                <button class="quiet h-6" title="It is meant to be so" @click="proof.leave([f])">Leave</button>
              </span>
            </li>
            <li v-if="row.findings.length > MOST" class="quiet py-0.5 pl-[29px]">
              and {{ row.findings.length - MOST }} more: {{ keys.writtenKey('next-finding') }} goes through them
            </li>
          </ul>
        </li>
        <li v-if="proof.left.length">
          <button
            class="quiet flex h-6 w-full items-center gap-2 px-3.5 text-left hover:bg-raise"
            :aria-expanded="opened === 'left'"
            @click="toggle('left')"
          >
            Left as they are <span class="number text-[11px]">{{ proof.left.length }}</span>
          </button>
          <ul v-if="opened === 'left'" class="pb-1">
            <li
              v-for="f in proof.left.slice(0, MOST)"
              :key="f.key"
              class="flex items-center gap-2 py-0.5 pr-3.5 pl-[29px]"
            >
              <FindingPicture :at="f.at" />
              <span class="min-w-0 flex-1 truncate">{{ KIND_WORDS[f.kind].title }}</span>
              <button class="quiet h-6" @click="proof.lookAgain([f])">Look again</button>
            </li>
          </ul>
        </li>
        <li v-if="proof.certain.length > 1" class="flex h-6 items-center px-3.5">
          <span class="quiet">Specks, doubles and the like</span>
          <button
            class="ml-auto h-6 font-[650] text-plum hover:underline"
            title="Takes out only what is certain; shown first"
            @click="proof.tryMend(proof.certain)"
          >
            Clean all {{ proof.certain.length }}
          </button>
        </li>
        <li v-if="proof.kinds.length || proof.left.length">
          <button
            class="quiet flex h-6 w-full items-center gap-2 px-3.5 text-left hover:bg-raise"
            :aria-expanded="opened === 'limits'"
            @click="toggle('limits')"
          >
            Limits
          </button>
          <div v-if="opened === 'limits'" class="grid gap-1 px-3.5 py-1">
            <NumberField
              v-for="l in LIMIT_WORDS"
              :key="l.id"
              class="[&>span:first-child]:flex-1 [&>span:last-child]:w-7"
              :label="l.title"
              :value="limits[l.id]"
              :unit="l.unit"
              @keep="(v) => setLimit(l.id, l.title, v)"
            />
          </div>
        </li>
      </ul>
    </div>
  </section>
</template>
