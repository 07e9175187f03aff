#!/usr/bin/env bash
# Measures the listing of one folder with 5,000 and with 50,000 files in one run: first page, sorted, far back, searched; and by what factor each grows.
# The aim is 200 ms at the 95th percentile with 50,000.
#   SIZES=500,5000 bench/folders.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need chromium=chromium
build_jar
OAK_BENCH=folders mvn -B -q verify -Dtest=FoldersBench -Dsurefire.failIfNoSpecifiedTests=false -DtrimStackTrace=false
