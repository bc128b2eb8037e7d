#!/usr/bin/env bash
# Rebuilds the pages and restarts a demo server on port 4800, for looking.
cd "$(dirname "$0")/.." && (cd web && npx vite build --logLevel=warn) && pkill -f server/src/main.ts; sleep 1.5
(PORT=4800 MORAY_DATA=${1:-/tmp/md} npx tsx server/src/main.ts > /tmp/server.log 2>&1 &)
for i in $(seq 100); do grep -q ready /tmp/server.log && break; sleep .3; done; cat /tmp/server.log
