#!/usr/bin/env bash
# Kills the packaged application at random points while senders upload, many times over on the same data, and checks after each that nothing acknowledged
# is lost, nothing is half and nothing is there twice. The tests do the same a few times; this is the long run.
#   KILLS=200 bench/kills.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
build_jar
KILLS=${KILLS:-200} mvn -B -q verify -Dtest=KillTest -Dsurefire.failIfNoSpecifiedTests=false
