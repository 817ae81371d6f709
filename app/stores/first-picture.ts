/** What the first picture does without begins so long after it, and so long after the page began at the latest, ms. */
const AFTER_PICTURE = 400
const AT_THE_LATEST = 4000

let stands: () => void
/** Comes true once the page shows what it was opened for: what is kept, fetched and told may begin. */
export const firstPicture = new Promise<void>((resolve) => {
  stands = resolve
  setTimeout(resolve, AT_THE_LATEST)
})
export const pictureStands = () => setTimeout(stands, AFTER_PICTURE)
