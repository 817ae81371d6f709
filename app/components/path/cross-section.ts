import { defineAsyncComponent } from 'vue'

// The chart library is a large part of the program: it is fetched beside the session, not after it.
const loading = import('./CrossSection.vue')

export const CrossSection = defineAsyncComponent(() => loading)
