#!/usr/bin/env bash
# Starts Oak Basket with the demo scenario, freshly made at each start. Stop it with Ctrl-C.
# Settings: PORT (8080), CLOCK (a fixed instant such as 2026-05-12T09:30:00Z, for pictures).
set -euo pipefail
source "$(dirname "$0")/scripts/prepare.sh"
build_jar
PORT=${PORT:-8080}
rm -rf .build/demo-data
cat <<EOF

  Oak Basket with the demo scenario
    desk      http://localhost:$PORT/          (ready when "Demo data made" appears below)
    sign in   coordinator@example.org
    password  river oak basket
    Letters to the invented people are read and answered at http://localhost:$PORT/post-office, where the clock can be moved, too.
    Links for senders: open a round, choose a person, "Copy link". The passcode of "Placement portfolios" is: kingfisher

EOF
exec java -Xmx512m -XX:+ExitOnOutOfMemoryError -jar "$JAR" --server.port="$PORT" --oakbasket.data=.build/demo-data --oakbasket.demo=true \
  --oakbasket.post-office=true --oakbasket.mail-from=office@fennbrook.example.org --oakbasket.collecting-address=papers@fennbrook.example.org \
  "--oakbasket.office=Fennbrook Catchment Partnership" --oakbasket.zone=Europe/London ${CLOCK:+--oakbasket.clock=$CLOCK}
