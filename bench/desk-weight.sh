#!/usr/bin/env bash
# Prints what the desk's first page brings in script and style, compressed as the server sends it, and the heaviest views loaded when they are opened.
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
build_web
cd web/dist
total=0
for part in $(grep -oE '/assets/[^"]+\.(js|css)' desk.html | sort -u); do
  bytes=$(gzip -9 -c ".$part" | wc -c)
  total=$((total + bytes))
  printf '%8d  %s\n' "$bytes" "${part##*/}"
done
printf '%8d  bytes in the first load of the desk (aim: at most %d)\n\nfurther parts, when they are opened:\n' "$total" $((260 * 1024))
for part in assets/*.js assets/*.css; do
  grep -qF "/$part" desk.html basket.html || printf '%8d  %s\n' "$(gzip -9 -c "$part" | wc -c)" "${part##*/}"
done | sort -rn | head -12
