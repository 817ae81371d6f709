import { defineNuxtPlugin } from '#imports'
import { tellLateTrouble } from '~/stores/late-part'

/** A place whose code does not come is told; the page stays as it is, with everything on it. */
export default defineNuxtPlugin((app) => {
  app.hook('app:chunkError', ({ error }) => tellLateTrouble(error))
})
