#!/usr/bin/env bash
# Measures the board of a round with twelve items at 500, 5,000 and 50,000 baskets in one run: the server's answer and its size, the first usable paint, the
# cost of one changed basket, scrolling; and by what factor each grows. Figures differ by machine; the growth does not much.
#   SIZES=500,5000 bench/board.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need chromium=chromium
build_jar
OAK_BENCH=board mvn -B -q verify -Dtest=BoardBench -Dsurefire.failIfNoSpecifiedTests=false -DtrimStackTrace=false
