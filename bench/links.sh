#!/usr/bin/env bash
# Measures the list of links at 5,000 and 50,000 links in one run: the first page, found by a name, sorted by what came, far back, and pausing all of them;
# and by what factor each grows. Figures differ by machine; the growth does not much.
#   SIZES=500,5000 bench/links.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need chromium=chromium
build_jar
OAK_BENCH=links mvn -B -q verify -Dtest=LinksBench -Dsurefire.failIfNoSpecifiedTests=false -DtrimStackTrace=false
