# Functions that bring a fresh Debian machine to where it can build: sourced by demo.sh, test.sh and the scripts in bench/.
# Only what is missing is installed; what did not change is not built again.

cd "$(dirname "${BASH_SOURCE[0]}")/.." || exit 1
mkdir -p .build .tools
# Where Debian keeps what mostly root runs, such as clamd.
PATH="$PATH:/usr/sbin"

# Installs Debian packages, each given as COMMAND=PACKAGE, whose command is missing.
need() {
  local missing=()
  for pair in "$@"; do
    command -v "${pair%%=*}" >/dev/null 2>&1 || missing+=("${pair#*=}")
  done
  install_packages "${missing[@]}"
}

# The same for modules of Debian's own Python, given as MODULE=PACKAGE.
need_python() {
  local missing=()
  for pair in "$@"; do
    /usr/bin/python3 -c "import ${pair%%=*}" >/dev/null 2>&1 || missing+=("${pair#*=}")
  done
  install_packages "${missing[@]}"
}

install_packages() {
  local missing=("$@")
  [ ${#missing[@]} -eq 0 ] && return
  echo "Installing: ${missing[*]}"
  local as=()
  [ "$(id -u)" -eq 0 ] || as=(sudo)
  "${as[@]}" apt-get update -qq
  DEBIAN_FRONTEND=noninteractive "${as[@]}" apt-get install -y -qq --no-install-recommends "${missing[@]}" >.build/apt.log 2>&1 \
    || { cat .build/apt.log; echo "These packages could not be installed: ${missing[*]}"; exit 1; }
}

need_java() {
  need javac=openjdk-17-jdk-headless mvn=maven
  local version
  version=$(javac -version 2>&1 | sed 's/[^0-9]*\([0-9]*\).*/\1/')
  if [ "$version" -lt 17 ]; then
    echo "Java 17 or newer is needed, this machine has $version. Install the package openjdk-17-jdk-headless."
    exit 1
  fi
}

# Vite needs Node 20.19 or newer; where the machine's own is older, one is taken into .tools from the npm registry.
need_node() {
  need npm=npm
  if ! node_fits node || [ -n "${OAK_LOCAL_NODE:-}" ]; then
    local bin="$PWD/.tools/node/node_modules/node/bin"
    [ -x "$bin/node" ] || npm install --silent --no-audit --no-fund --prefix .tools/node node@22
    PATH="$bin:$PATH"
    node_fits node || { echo "Node 20.19 or newer is needed and could not be had."; exit 1; }
  fi
}

node_fits() {
  command -v "$1" >/dev/null 2>&1 && "$1" -e 'const [a, b] = process.versions.node.split("."); process.exit(+a > 20 || (+a === 20 && +b >= 19) ? 0 : 1)'
}

# Whether the files given differ from those of the last build of that name.
changed() {
  local name=$1
  shift
  find "$@" -type f ! -path '*/node_modules/*' ! -path '*/target/*' ! -path '*/dist/*' -print0 | sort -z | xargs -0 sha256sum | sha256sum >".build/$name.now"
  ! cmp -s ".build/$name.now" ".build/$name.sha"
}

built() {
  mv ".build/$1.now" ".build/$1.sha"
}

build_web() {
  need_node
  if changed packages web/package.json web/package-lock.json web/.npmrc || [ ! -d web/node_modules ]; then
    (cd web && npm ci --silent --no-audit --no-fund) || exit 1
    built packages
  fi
  if changed web web || [ ! -f web/dist/desk.html ]; then
    (cd web && npm run --silent build -- --logLevel warn) || exit 1
    built web
  fi
}

JAR=server/target/oak-basket-app.jar

build_jar() {
  need_java
  build_web
  if changed jar pom.xml core/pom.xml core/src/main server/pom.xml server/src/main .build/web.sha || [ ! -f "$JAR" ]; then
    mvn -B -q -pl core,server -DskipTests package || exit 1
    built jar
  fi
}
