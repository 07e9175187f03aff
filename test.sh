#!/usr/bin/env bash
# Runs all tests: the core's tables, HTTP against the running application, and journeys in a real browser.
# Arguments go to Maven, for example: ./test.sh -pl core
set -euo pipefail
source "$(dirname "$0")/scripts/prepare.sh"
need chromium=chromium zbarimg=zbar-tools pdftotext=poppler-utils unzip=unzip 7z=p7zip-full cadaver=cadaver dovecot=dovecot-imapd swaks=swaks openssl=openssl rclone=rclone litmus=litmus curl=curl wget=wget python3=python3 clamd=clamav-daemon
# A second package of the same server, which has no command of its own.
[ -e /usr/lib/dovecot/lmtp ] || install_packages dovecot-lmtpd
need_python openpyxl=python3-openpyxl vobject=python3-vobject
need_java
build_web
(cd web && npm run --silent lint)
exec mvn -B -ntp verify "$@"
