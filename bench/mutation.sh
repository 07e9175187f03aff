#!/usr/bin/env bash
# Changes the rules of the core one at a time (PIT) and counts how many of the changes the tests notice, by package; then lists those that nobody noticed.
#   bench/mutation.sh
set -euo pipefail
source "$(dirname "$0")/../scripts/prepare.sh"
need python3=python3
need_java
mvn -B -q -ntp -pl core test-compile org.pitest:pitest-maven:mutationCoverage
python3 - core/target/pit-reports/mutations.xml <<'PYTHON'
import collections, sys, xml.etree.ElementTree as xml
everything = xml.parse(sys.argv[1]).getroot().findall("mutation")
# Some changes end the Java machine when they are put in; of those nobody knows.
found = [one for one in everything if one.get("status") != "RUN_ERROR"]
noticed = lambda one: one.get("detected") == "true"
package = lambda one: one.findtext("mutatedClass").split(".")[2]
by = collections.defaultdict(lambda: [0, 0])
for one in found:
    by[package(one)][0] += noticed(one)
    by[package(one)][1] += 1
for name, (killed, all_) in sorted(by.items()):
    print(f"{name:12} {killed:4} of {all_:4}  {100 * killed / all_:5.1f} %")
killed, all_ = sum(map(noticed, found)), len(found)
print(f"{'all':12} {killed:4} of {all_:4}  {100 * killed / all_:5.1f} %; besides, {len(everything) - all_} could not be tried")
for one in found:
    if not noticed(one):
        print(f"{one.findtext('sourceFile')}:{one.findtext('lineNumber')} {one.findtext('mutatedMethod')}: {one.findtext('description')} ({one.get('status')})")
PYTHON
