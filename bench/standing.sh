#!/usr/bin/env bash
# Measures with JMH how long the core takes for the standing of a million items in baskets of twelve, totals included. The aim is under a second.
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need_java
mvn -B -q -pl core -am install -DskipTests
mvn -B -q -f bench/standing/pom.xml clean package dependency:build-classpath -Dmdep.outputFile=target/classpath
exec java -Xmx2g -cp "bench/standing/target/classes:$(cat bench/standing/target/classpath)" org.openjdk.jmh.Main MillionItems
