<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { ref } from 'vue'

/** A form in a dialog. What has been typed is not thrown away by one key or one tap beside it: it is asked about once. */
withDefaults(
  defineProps<{
    header: string
    /** What the button says that sends it. */
    action: string
    busy?: boolean
    /** It cannot be sent yet. */
    unready?: boolean
    /** Two fields side by side where there is room. */
    columns?: 1 | 2
  }>(),
  { columns: 2 },
)
const emit = defineEmits<{ send: []; close: [] }>()
const begun = ref(false)
const leaving = ref(false)
/** A choice of one tap is made again with one tap; only what was typed or picked counts. */
function touched(e: Event) {
  if (!['radio', 'checkbox'].includes((e.target as HTMLInputElement).type)) begun.value = true
  leaving.value = false
}
function leave() {
  if (begun.value && !leaving.value) leaving.value = true
  else emit('close')
}
</script>

<template>
  <Dialog visible modal :header="header" @update:visible="leave()">
    <div class="inside" :class="{ one: columns === 1 }" @input="touched">
      <slot name="above" />
      <form class="dialog-form entries" @submit.prevent="emit('send')">
        <slot />
        <div class="wide actions">
          <p v-if="leaving" class="small" role="alert">What you typed would be lost.</p>
          <Button
            type="button"
            :label="leaving ? 'Throw it away' : 'Leave it'"
            class="quiet"
            @click="leave()"
          />
          <Button type="submit" :label="action" class="lamp" :disabled="unready || busy" />
        </div>
        <slot name="below" />
      </form>
    </div>
  </Dialog>
</template>

<style scoped>
.inside {
  width: min(34rem, 82vw);
}
.inside form {
  width: auto;
}
.one {
  width: min(30rem, 82vw);
}
.one form {
  grid-template-columns: 1fr;
}
.actions {
  flex-wrap: wrap;
}
.actions p {
  width: 100%;
  text-align: right;
}
</style>
