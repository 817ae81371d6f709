import { config } from 'zod'

// Zod would compile its checks with `new Function`, which the content security policy rightly refuses.
config({ jitless: true })

export * as z from 'zod'
