<script setup lang="ts">
import { computed } from 'vue'
import { pictureSize } from '#core/formats/delivery/picture-size'
import { LARGEST_PICTURE } from '#core/formats/delivery/settings'
import GroundField from './GroundField.vue'
import NumberField from '~/components/ui/NumberField.vue'
import { useDeliveryStore } from '~/stores/delivery'
import { useDrawingStore } from '~/stores/drawing'

/** How fine a picture is, and of what its dots are. */
const store = useDrawingStore()
const delivery = useDeliveryStore()
const picture = computed(() => delivery.settings.picture)
const size = computed(() => pictureSize(store.drawing!.page, picture.value))
/** As many dots as there can be are fewer than were asked for. */
const held = computed(() => Math.max(size.value.width, size.value.height) >= LARGEST_PICTURE)

const within = (v: number, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(v)))
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <label class="flex items-center gap-2">
      Fineness
      <select v-model="picture.by" class="field" data-testid="picture-by">
        <option value="dpi">Dots per inch</option>
        <option value="px">Pixels</option>
      </select>
    </label>
    <NumberField
      v-if="picture.by === 'dpi'"
      label="Dots per inch"
      unit="dpi"
      :digits="0"
      :value="picture.dpi"
      @keep="(v) => (picture.dpi = within(v, 10, 4800))"
    />
    <NumberField
      v-else
      label="Longer side"
      unit="px"
      :digits="0"
      :value="picture.side"
      @keep="(v) => (picture.side = within(v, 1, LARGEST_PICTURE))"
    />
    <span class="number text-mute-deep" data-testid="picture-size"
      >{{ size.width }} x {{ size.height }} px, {{ Math.round(size.dpi) }} dpi{{
        held ? ', the largest there is' : ''
      }}</span
    >
    <label class="flex items-center gap-2">
      Tones
      <select v-model="picture.tones" class="field" data-testid="tones">
        <option value="colour">All inks</option>
        <option value="one-bit">Black alone, for stamps</option>
      </select>
    </label>
    <GroundField v-if="picture.tones === 'colour'" />
  </div>
</template>
