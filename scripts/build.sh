# Sourced by demo, test and justright: installs what is missing on a fresh Debian machine, and builds what is out of date.
# Everything built lies in .build/ beside this checkout; nothing else is touched.

top=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
built=$top/.build
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1

say() { printf '%s\n' "$*" >&2; }

# Installs Debian packages that are not there yet; who comes while others are installed waits.
need_packages() {
  mkdir -p "$built"
  { flock 9 && install_packages "$@"; } 9> "$built/apt.lock"
}

install_packages() {
  local missing=()
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'install ok installed' || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  say "Installing ${missing[*]} …"
  local as_root=()
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  { "${as_root[@]}" apt-get update -q && DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -q --no-install-recommends "${missing[@]}"; } > "$built/apt.log" 2>&1 9>&- \
    || { say "Installing failed; the last lines of .build/apt.log:"; tail -5 "$built/apt.log" >&2; exit 1; }
}

# True when a stamp is older than a file below the given paths, or is missing.
is_stale() {
  local stamp=$1
  shift
  [ ! -e "$stamp" ] || [ -n "$(cd "$top" && find "$@" -type f -newer "$stamp" -not -path '*/bin/*' -not -path '*/obj/*' -not -path '*/node_modules/*' -not -path '*/dist/*' -print -quit)" ]
}

# Runs a build quietly; its output is shown only when it fails.
quietly() {
  local log=$built/$1.log
  shift
  "$@" > "$log" 2>&1 || { tail -30 "$log" >&2; say "Building failed: $*"; exit 1; }
}

shared_parts=(Directory.Build.props Directory.Packages.props global.json src/JustRight.Contracts)
service_parts=(src/JustRight.Core src/JustRight.Formats src/JustRight.Connectors src/JustRight.Simulation src/JustRight.Service demo-data/simulation)

build_service() {
  mkdir -p "$built"
  need_packages libldap-2.5-0 libicu72
  is_stale "$built/service.stamp" "${shared_parts[@]}" "${service_parts[@]}" || return 0
  say "Building the service …"
  quietly service dotnet publish "$top/src/JustRight.Service" -c Release -o "$built/service"
  touch "$built/service.stamp"
}

build_simulated_instance() {
  mkdir -p "$built"
  need_packages libldap-2.5-0
  is_stale "$built/simulated-instance.stamp" "${shared_parts[@]}" "${service_parts[@]}" src/JustRight.SimulatedInstance || return 0
  say "Building the simulated instance …"
  quietly simulated-instance dotnet publish "$top/src/JustRight.SimulatedInstance" -c Release -o "$built/simulated-instance"
  touch "$built/simulated-instance.stamp"
}

build_client() {
  mkdir -p "$built"
  is_stale "$built/client.stamp" "${shared_parts[@]}" src/JustRight.Cli || return 0
  need_packages gcc libc6-dev zlib1g-dev
  say "Building the client …"
  quietly client dotnet publish "$top/src/JustRight.Cli" -c Release -r "linux-$(uname -m | sed 's/x86_64/x64/; s/aarch64/arm64/')" -p:CppCompilerAndLinker=gcc -o "$built/client"
  touch "$built/client.stamp"
}

build_console() {
  mkdir -p "$built"
  is_stale "$built/console.stamp" console || return 0
  say "Building the console …"
  (cd "$top/console" && quietly console-packages npm ci --no-audit --no-fund && quietly console npm run build)
  touch "$built/console.stamp"
}

build_all() {
  build_service
  build_client
  build_console
}
