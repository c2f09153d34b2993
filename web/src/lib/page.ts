/** This page's own name to the server, which tells the others what it did, and not it. */
export const PAGE = Math.random().toString(36).slice(2)
