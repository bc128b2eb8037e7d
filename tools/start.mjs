// The built server, in this very process, so that a signal to `npm start` reaches it.
// npm can die without passing the signal on: then this process ends too, and says so
process.env.MORAY_FOLLOW ??= 'parent'
await import('../server/dist/main.js')
