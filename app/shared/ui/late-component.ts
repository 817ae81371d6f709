import type { Component } from 'vue'
import { defineAsyncComponent } from 'vue'
import LoadFailure from './LoadFailure.vue'

/** How often a part is asked for again, and how long after, ms. */
const TRIES = 2
const PAUSE = 400

/** A component that is fetched when it is first shown. Where that fails, it is tried again, and then it says so in its place. */
export const lateComponent = <T extends Component>(load: () => Promise<T | { default: T }>) =>
  defineAsyncComponent({
    loader: load as () => Promise<T>,
    errorComponent: LoadFailure,
    onError: (_error, retry, fail, attempts) => {
      if (attempts <= TRIES) setTimeout(retry, PAUSE * attempts)
      else fail()
    },
  })
