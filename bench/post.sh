#!/usr/bin/env bash
# Measures with JMH how long the core takes to see ahead what will go for 100,000 baskets of six steps (the aim is under a second), and kills the packaged application 20 times each while it hands over
# 5,000 letters and takes in 1,000 messages. The tests do the same a few times with fewer; this is the long run.
#   POST_LETTERS=1000 POST_MESSAGES=200 POST_KILLS=5 bench/post.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need_java
mvn -B -q -pl core -am install -DskipTests
mvn -B -q -f bench/post/pom.xml clean package dependency:build-classpath -Dmdep.outputFile=target/classpath
java -Xmx2g -cp "bench/post/target/classes:$(cat bench/post/target/classpath)" org.openjdk.jmh.Main WhatWillGo
build_jar
export POST_LETTERS=${POST_LETTERS:-5000} POST_MESSAGES=${POST_MESSAGES:-1000} POST_KILLS=${POST_KILLS:-20}
mvn -B -q verify -Dtest=PostKillTest -Dsurefire.failIfNoSpecifiedTests=false
