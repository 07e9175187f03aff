#!/usr/bin/env bash
# Makes the pictures in docs/screenshots anew, from the demo data with a fixed clock.
set -euo pipefail
source "$(dirname "$0")/prepare.sh"
need chromium=chromium
build_jar
OAK_SCREENSHOTS=1 mvn -B -q verify -Dtest=ScreenshotsTest -Dsurefire.failIfNoSpecifiedTests=false
