#!/usr/bin/env bash
# Has 2,000 hostile files looked at, one after another, by somebody at the desk: a fixed set of bombs, and what a seeded mutator makes of honest files of every kind. Meanwhile somebody else asks for the page of a sender.
# Prints how long that page took before and meanwhile, in the same run, what became of the files, how many child processes they ended, and the heap of the server after a collection before and after. Uses only loopback.
#   FILES=300 SEED=7 bench/decode.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need python3=python3
build_jar
exec python3 bench/decode.py
