export { endSharing, newRole, openedFragment, resumeSharing, setRole, shareSession } from './opener'
export { joinSession, leaveRoom } from './guest'
export { metNews, refusedNews, unopened } from './news'
