#!/usr/bin/env bash
# Lays siege to the packaged application with 256 MiB: idle, half-sent, slow and unread connections from one address of this machine, while somebody from
# another address just wants the page. Prints how long that one waits, during and ten seconds after, beside the same for plain Spring Boot applications on
# both containers. Uses only loopback; every siege is bounded and ends by itself.
#   bench/hold.sh            the product as it is shipped, the product with all callers behind one proxy, and the plain ones
#   HOLD_TRIALS=readers bench/hold.sh    only the trials with that in their name
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
build_jar
mvn -B -q -f bench/plain/pom.xml clean package -Dcontainer=tomcat
mkdir -p .build/plain && cp bench/plain/target/plain-tomcat.jar .build/plain/
mvn -B -q -f bench/plain/pom.xml clean package -Dcontainer=jetty
cp bench/plain/target/plain-jetty.jar .build/plain/
mvn -B -q -pl core,server,e2e test-compile
cd e2e
export OAK_BENCH=hold
HOLD_JARS=../server/target/oak-basket-app.jar HOLD_FLAGS="|--oakbasket.connections-per-caller=6000" java -cp target/test-classes oakbasket.e2e.HoldBench
HOLD_JARS=../.build/plain/plain-tomcat.jar,../.build/plain/plain-jetty.jar java -cp target/test-classes oakbasket.e2e.HoldBench
