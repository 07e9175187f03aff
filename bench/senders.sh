#!/usr/bin/env bash
# Lets 200 senders send at once, five files of 2 MiB each, to the packaged application with -Xmx256m, while somebody else makes small calls. Every file must
# arrive with its right hash; prints how long the small calls took meanwhile and before, in the same run. Uses only loopback.
#   SENDERS=50 bench/senders.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need python3=python3
build_jar
exec python3 bench/senders.py
