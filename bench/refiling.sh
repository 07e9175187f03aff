#!/usr/bin/env bash
# Kills the packaged application at random points while rules are put to 10,000 files and taken back again, 50 times over, and checks that every file exists
# exactly once where record and journal say. The tests do the same a few times with fewer files; this is the long run.
#   REFILING_FILES=2000 REFILING_KILLS=10 bench/refiling.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
build_jar
export REFILING_FILES=${REFILING_FILES:-10000} REFILING_KILLS=${REFILING_KILLS:-50}
mvn -B -q verify -Dtest=RefilingKillTest -Dsurefire.failIfNoSpecifiedTests=false
