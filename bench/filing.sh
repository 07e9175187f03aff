#!/usr/bin/env bash
# Measures with JMH how long the core takes to try 20 rules on 100,000 files, places and clashes included. The aim is under a second.
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need_java
mvn -B -q -pl core -am install -DskipTests
mvn -B -q -f bench/filing/pom.xml clean package dependency:build-classpath -Dmdep.outputFile=target/classpath
exec java -Xmx3g -cp "bench/filing/target/classes:$(cat bench/filing/target/classpath)" org.openjdk.jmh.Main HundredThousandFiles
