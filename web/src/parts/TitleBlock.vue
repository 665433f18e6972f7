<script setup lang="ts">
import { computed, ref } from 'vue'
import { useScreenKeys } from '../foundation/useKeys'
import ProblemNote from './ProblemNote.vue'
import { type Kept, useHistory } from './useHistory'

/** As on a drawing, at the lower right: what is looked at, and the last change with its undo. */
const props = defineProps<{ edition?: number; term?: number; facts: string[]; canChange: boolean }>()

const { changes, back, forth, undo } = useHistory(
  computed<Kept>(() => (props.term === undefined ? { edition: props.edition! } : { term: props.term })),
)
const latest = computed(() => changes.value[0])
const listed = ref(false)

const sentence = (change: { author: string; mine: boolean; words: string }) =>
  `${change.mine ? 'You' : change.author} ${change.words}`

async function takeBack(batch: number): Promise<void> {
  if (props.canChange && !undo.busy.value) await undo.run({ batch }).catch(() => undefined)
}

useScreenKeys([
  {
    key: 'Ctrl+z',
    words: 'undo your last change; again, the one before it',
    run: () => void (back.value && takeBack(back.value.batch)),
  },
  {
    key: 'Ctrl+y',
    words: 'redo what you undid last',
    run: () => void (forth.value && takeBack(forth.value.batch)),
  },
  { key: 'h', words: 'what was changed, by whom', run: () => (listed.value = !listed.value) },
])
</script>

<template>
  <footer class="foot">
    <section v-if="listed" class="history" aria-label="What was changed">
      <p class="ruled-head small">Changes, newest first</p>
      <p v-if="changes.length === 0" class="second none">Nothing has been changed yet.</p>
      <ol class="ruled" tabindex="0">
        <li v-for="change in changes" :key="change.batch" :class="{ undone: change.undone }">
          <span class="small">{{ change.at.words }}</span>
          <span class="what">{{ sentence(change) }}</span>
          <span v-if="change.undone" class="small">undone</span>
          <button v-else-if="canChange" type="button" class="word-button" @click="takeBack(change.batch)">
            {{ change.isUndo ? 'redo' : 'undo' }}
          </button>
        </li>
      </ol>
    </section>
    <div v-if="undo.problem.value" class="trouble">
      <ProblemNote :problem="undo.problem.value">
        <button type="button" class="word-button" @click="undo.reset()">Close</button>
      </ProblemNote>
    </div>
    <div class="block">
      <span v-for="fact in facts" :key="fact">{{ fact }}</span>
      <span class="last" role="status">
        <template v-if="latest">
          <span class="what" :title="sentence(latest)">{{ sentence(latest) }}</span>
          <span class="when">, {{ latest.at.words }}</span>
          <template v-if="canChange && back">
            ·
            <button
              type="button"
              class="word-button accent"
              :title="`You ${back.words}`"
              :disabled="undo.busy.value"
              @click="takeBack(back.batch)"
            >
              {{ latest.mine ? 'undo' : 'undo yours' }}
            </button>
          </template>
          <template v-if="canChange && forth">
            ·
            <button
              type="button"
              class="word-button accent"
              :title="`You ${forth.words}`"
              :disabled="undo.busy.value"
              @click="takeBack(forth.batch)"
            >
              redo
            </button>
          </template>
        </template>
        <template v-else>no changes yet</template>
      </span>
      <button type="button" class="word-button" :aria-expanded="listed" @click="listed = !listed">
        {{ listed ? 'hide changes' : 'all changes' }}
      </button>
    </div>
  </footer>
</template>

<style scoped>
.foot {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  justify-items: end;
}
.block {
  display: flex;
  max-width: 100%;
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--hair);
  border-bottom: 0;
  font-size: var(--size-small);
}
.block > * {
  padding: var(--space-4) var(--space-6);
  white-space: nowrap;
}
.block > * + * {
  border-left: var(--stroke-hair) solid var(--hair);
}
.last {
  display: flex;
  gap: var(--space-2);
  min-width: 0;
  max-width: 620px;
}
.last .what {
  overflow: hidden;
  text-overflow: ellipsis;
}
@media (max-width: 900px) {
  .block {
    flex-wrap: wrap;
  }
  .block > * {
    flex: 1 1 auto;
  }
  .last {
    max-width: 100%;
  }
}
.when {
  margin-left: calc(-1 * var(--space-2));
}
.history,
.trouble {
  position: absolute;
  bottom: 100%;
  right: 0;
  width: min(760px, 100%);
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--hair);
  border-bottom: 0;
  padding: var(--space-5) var(--space-7) 0;
}
.history ol {
  max-height: 280px;
  overflow: auto;
}
.history li {
  display: grid;
  grid-template-columns: 124px 1fr auto;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.undone .what {
  color: var(--ink-2);
  text-decoration: line-through;
}
.none {
  padding: var(--space-5) 0;
}
</style>
