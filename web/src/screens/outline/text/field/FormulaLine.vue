<script setup lang="ts">
import { computed, ref } from 'vue'
import FormattedText from '../../../../parts/FormattedText.vue'
import TickField from '../../../../parts/fields/TickField.vue'
import type { FormulaAttributes } from '../../../../parts/text/formula'
import { formulaOf } from './formulas'

/** A formula typed as TeX, shown as it will be read. */
const props = defineProps<{ present: FormulaAttributes | null }>()
const emit = defineEmits<{ set: [formula: FormulaAttributes]; close: [] }>()

const tex = ref(props.present?.tex ?? '')
const ownLine = ref(props.present?.markup.includes('display="block"') ?? false)
const made = computed(() => (tex.value.trim() === '' ? null : formulaOf(tex.value.trim(), ownLine.value)))

function set(): void {
  if (made.value && 'markup' in made.value) emit('set', { tex: tex.value.trim(), markup: made.value.markup })
}
</script>

<template>
  <div class="formula">
    <p class="line">
      <label class="small" for="formula-tex">Formula, as TeX</label>
      <v-text-field
        id="formula-tex"
        v-model="tex"
        class="tex"
        placeholder="p = \frac{F}{A}"
        maxlength="2000"
        autofocus
        @keydown.enter.prevent="set"
        @keydown.esc.stop.prevent="emit('close')"
      />
      <TickField v-model="ownLine" label="on a line of its own" />
      <v-btn :disabled="!made || !('markup' in made)" @click="set">{{
        present ? 'Change the formula' : 'Put it in'
      }}</v-btn>
      <v-btn @click="emit('close')">Not now</v-btn>
    </p>
    <p v-if="made && 'problem' in made" class="small accent" role="alert">{{ made.problem }}</p>
    <FormattedText v-else-if="made" :html="`<p>${made.markup}</p>`" />
  </div>
</template>

<style scoped>
.formula {
  display: grid;
  gap: var(--space-3);
}
.tex {
  min-width: min(100%, 340px);
}
</style>
