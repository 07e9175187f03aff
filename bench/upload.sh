#!/usr/bin/env bash
# Receives files through Oak Basket and, side by side in the same run, through nginx (WebDAV PUT) followed by a hash and a flush of file and folder.
# Prints ratios, not absolute speeds: machines differ, the pairs do not. Uses only loopback.
#   bench/upload.sh            1 GiB, 5 rounds; then 2,000 files of 16 KiB, 3 rounds
#   ROUNDS=3 MIB=256 bench/upload.sh
#   EARLIER_JAR=/somewhere/before.jar ROUNDS=5 bench/upload.sh    beside an earlier build of the product instead of nginx
#   HUGE_GIB=5 bench/upload.sh also sends one file of that size through the product with -Xmx256m and checks its hash
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need nginx=nginx-light curl=curl openssl=openssl python3=python3
build_jar
exec python3 bench/upload.py
