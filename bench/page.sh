#!/usr/bin/env bash
# Measures the page of senders: what it weighs, and when it is usable at 400 kbit/s and 400 ms a round trip, from an empty cache, beside the same page on a line
# without limits in the same run, once the application has come to rest; and how long 300 photos of 200 KB take at 10 Mbit/s and 200 ms beside what that line itself needs.
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need chromium=chromium
build_jar
OAK_BENCH=page mvn -B -q verify -Dtest=PageBench -Dsurefire.failIfNoSpecifiedTests=false -DtrimStackTrace=false
