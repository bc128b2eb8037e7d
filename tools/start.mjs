// The built server, in this very process, so that a signal to `npm start` reaches it.
await import('../server/dist/main.js')
