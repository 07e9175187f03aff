#!/usr/bin/env bash
# Has many people take the same parcel away at once, from Oak Basket and, side by side in the same run, from nginx serving the same file. Prints ratios, not absolute speeds: machines differ, the pairs do
# not; the product is asked WARM times before (6), uncounted, while its code is still being compiled. Then takes it away once more and compares every hash, watching the memory of the server (-Xmx256m); and asks for a ZIP of 10,000 files until its first byte comes. Uses only loopback.
#   bench/pickup.sh                     100 at once, 1 GiB each, 3 rounds
#   AT_ONCE=20 MIB=256 ROUNDS=5 bench/pickup.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need nginx=nginx-light curl=curl python3=python3
build_jar
exec python3 bench/pickup.py
