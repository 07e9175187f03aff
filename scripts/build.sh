#!/usr/bin/env bash
# Builds server/target/oak-basket-app.jar.
set -euo pipefail
source "$(dirname "$0")/prepare.sh"
build_jar
echo "Built $JAR"
