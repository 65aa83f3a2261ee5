<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { ColorPicker } from 'vue-accessible-color-picker'
import 'vue-accessible-color-picker/styles'

/** Picks any colour: tells of it while it is dragged, and that it is to be kept when the hand lets go or types. */
const props = defineProps<{ /** #rrggbb */ colour: string }>()
const emit = defineEmits<{ look: [colour: string]; keep: [] }>()
const root = ref<HTMLElement>()
let looked = false

// The thumb of the picker has a name, and may only have one as something.
onMounted(() => root.value?.querySelector('.vacp-color-space-thumb')?.setAttribute('role', 'group'))

function look(hex: string): void {
  const next = hex.slice(0, 7).toLowerCase()
  if (!/^#[0-9a-f]{6}$/.test(next) || next === props.colour.toLowerCase()) return
  looked = true
  emit('look', next)
}
function keep(): void {
  if (!looked) return
  looked = false
  emit('keep')
}
</script>

<template>
  <div ref="root" class="ink-picker" @pointerup="keep" @keyup="keep" @change="keep" @focusout="keep">
    <ColorPicker
      :color="colour"
      alpha-channel="hide"
      :visible-formats="['hex', 'rgb', 'hsl']"
      default-format="hex"
      @color-change="(e: { colors: { hex: string } }) => look(e.colors.hex)"
    />
  </div>
</template>

<style>
.ink-picker .vacp-color-picker {
  --vacp-font-family: inherit;
  --vacp-color-border: var(--color-hair);
  --vacp-color-background: var(--color-raise);
  --vacp-color-background-input: var(--color-paper);
  padding: 0;
  max-width: none;
  border: none;
}
.ink-picker .vacp-color-space {
  grid-column: 1 / -1;
  width: 100%;
  height: 110px;
}
.ink-picker .vacp-copy-button {
  display: none;
}
</style>
