# Sourced by test: the parts, the sources each is about, what each needs, and how it runs.

parts=(style structure audit core formats simulation directory sign-in hosts databases service client console browser)

# Those that --long alone runs.
long_parts=(package generated tour)

# Those that take longest come first, so that the last to end is a short one.
longest_first=(service hosts browser directory sign-in style databases client simulation core structure formats console audit package generated tour)

# Which sources a part is about, for --changed: folders and files from the top.
part_sources() {
  local plan="src/JustRight.Core src/JustRight.Formats" reach service
  reach="$plan src/JustRight.Connectors tests/Shared"
  service="$reach src/JustRight.Simulation src/JustRight.Contracts src/JustRight.Service tests/ServiceUnderTest demo-data"
  case $1 in
    style) echo src tests bench console .editorconfig ;;
    structure) echo src tests bench ;;
    audit) echo Directory.Packages.props console/package-lock.json ;;
    core) echo src/JustRight.Core tests/JustRight.Core.Tests ;;
    formats) echo "$plan" tests/JustRight.Formats.Tests tests/Shared demo-data schemas ;;
    simulation) echo "$reach" src/JustRight.Simulation tests/JustRight.Simulation.Tests demo-data ;;
    directory) echo "$reach" tests/JustRight.Connectors.Tests docs/directory-file.md ;;
    sign-in) echo "$reach" src/JustRight.Simulation tests/JustRight.SignIn.Tests demo-data ;;
    hosts) echo "$service" tests/JustRight.Hosts.Tests tests/SimulatedHost ;;
    databases) echo "$service" src/JustRight.SimulatedInstance tests/JustRight.Databases.Tests ;;
    service) echo "$service" tests/JustRight.Service.Tests tests/golden docs/api docs/directory-file.md ;;
    client) echo "$service" src/JustRight.Cli tests/JustRight.Cli.Tests ;;
    console) echo console docs/api ;;
    browser) echo "$service" console ;;
    package) echo "$service" console packaging scripts ;;
    generated) echo "$service" docs/api tests/GeneratedClients ;;
    tour) echo "$service" src/JustRight.Cli src/JustRight.SimulatedInstance demo scripts ;;
  esac
}

# The test project of a part; none for those that are no such project.
part_project() {
  case $1 in
    structure | core | formats | simulation | hosts | databases | service) echo "JustRight.${1^}.Tests" ;;
    directory) echo JustRight.Connectors.Tests ;;
    sign-in) echo JustRight.SignIn.Tests ;;
    client) echo JustRight.Cli.Tests ;;
  esac
}

# Installs and builds what a part needs, besides its own project.
prepare_part() {
  case $1 in
    formats) need_packages python3 ;;
    directory) need_directory ;;
    sign-in)
      need_packages libicu72
      need_directory
      need_slapd
      ;;
    hosts)
      need_packages openssh-server openssh-client openssl libnss-wrapper
      build_service
      ;;
    databases)
      need_packages libicu72 postgresql
      build_service
      ;;
    service)
      need_directory
      need_packages nginx-light
      build_service
      ;;
    client)
      build_service
      build_client
      ;;
    package) need_packages curl ;;
    generated) build_service ;;
    tour)
      build_service
      build_client
      build_simulated_instance
      ;;
    browser)
      need_packages chromium
      build_service
      ;;
  esac
}

# What parts need that waits for nothing that is built here: made beside the builds.
prepare_beside() {
  [[ " $* " != *" hosts "* ]] || need_powershell
  # whatever starts the service, which does not start without the console
  case " $* " in *" service "* | *" client "* | *" databases "* | *" hosts "* | *" package "* | *" browser "*) build_console ;; esac
  case " $* " in *" style "* | *" console "* | *" browser "*) console_packages ;; esac
}

# Runs a part that is prepared.
run_part() {
  local project
  project=$(part_project "$1")
  # Parts that run side by side each have a controller at an address of its own.
  case $1 in
    sign-in) export JUSTRIGHT_TEST_CONTROLLER=127.0.0.5 ;;
    service) export JUSTRIGHT_TEST_CONTROLLER=127.0.0.6 ;;
  esac
  if [ -n "$project" ]; then
    xunit "$project"
    return
  fi
  case $1 in
    style)
      # by folders: the format is told by .editorconfig, and no project has to be read for it
      check "C# format" bash -c "cd '$top' && for f in src tests bench; do dotnet format whitespace --folder \$f --verify-no-changes || exit 1; done"
      check "TypeScript format, lint and types" bash -c "cd '$top/console' && npm run check"
      ;;
    audit) audit ;;
    tour) check "the demo's tour through the main job" "$top/demo" --tour ;;
    generated) check "clients that were generated from the API's description" "$top/scripts/generated-clients-check.sh" ;;
    package) check "the packaged service, with nothing else in reach" "$top/scripts/package-check.sh" ;;
    console)
      node_run "console units" "$built/vitest.json" '`${r.numPassedTests} ${r.numFailedTests} ${r.numPendingTests}`' \
        npx vitest run --reporter=json --outputFile="$built/vitest.json"
      ;;
    browser)
      rm -rf "$built/browser-logs"
      node_run "browser" "$top/console/test-results/results.json" '`${r.stats.expected} ${r.stats.unexpected + r.stats.flaky} ${r.stats.skipped}`' \
        npx playwright test
      ;;
  esac
}

console_packages() {
  [ -d "$top/console/node_modules" ] || (cd "$top/console" && quietly console-packages npm ci --no-audit --no-fund)
}

need_directory() {
  need_packages samba-ad-dc samba-ad-provision samba winbind ldap-utils krb5-config krb5-user libldap-2.5-0
}

# The programs of the inetOrgPerson directory alone: a directory of the machine's own would sit on the ports of the tests' servers.
need_slapd() {
  [ -x /usr/sbin/slapd ] && return
  local as_root=()
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  echo 'slapd slapd/no_configuration boolean true' | "${as_root[@]}" debconf-set-selections
  need_packages slapd
  "${as_root[@]}" service slapd stop > /dev/null 2>&1 || true
}

# Real PowerShell, to run the scripts that run on Windows hosts.
need_powershell() {
  [ -x "$built/powershell/pwsh" ] && return
  say "Installing PowerShell …"
  quietly powershell dotnet tool install PowerShell --tool-path "$built/powershell" --version 7.6.9
}

# Adds a runner's figures up.
count() { passed=$((passed + $1)) failed=$((failed + $2)) skipped=$((skipped + $3)); }

# A check that passes or fails as a whole.
check() {
  local name=$1 log=$built/test-${1//[^A-Za-z#]/-}.log
  shift
  if "$@" > "$log" 2>&1; then
    count 1 0 0
    echo "  ok      $name"
  else
    count 0 1 0
    echo "  FAILED  $name: $*"
    tail -40 "$log"
  fi
}

# Runs one built xunit project; its own last line gives the figures.
xunit() {
  local log=$built/test-$1.log figures
  "$top/tests/$1/bin/Release/net10.0/$1" -noColor -xml "$built/test-$1.xml" > "$log" 2>&1
  figures=$(grep -oE 'Total: [0-9]+, Errors: [0-9]+, Failed: [0-9]+, Skipped: [0-9]+' "$log" | tail -1 | tr -dc '0-9 ')
  if [ -z "$figures" ]; then
    count 0 1 0
    echo "  FAILED  $1 ended without a result"
    tail -40 "$log"
    return
  fi
  local total errors fails skips
  read -r total errors fails skips <<< "$figures"
  count $((total - fails - skips)) $((fails + errors)) "$skips"
  echo "  $([ $((fails + errors)) -eq 0 ] && echo ok || echo FAILED)      $1: $total tests"
  [ $((fails + errors)) -eq 0 ] || grep -vE '^ *(at |/)' "$log" | tail -60
}

# Runs a node runner that writes its figures as JSON; $3 prints "passed failed skipped" from it.
node_run() {
  local name=$1 results=$2 figures=$3 log=$built/test-${1// /-}.log read_figures good bad left
  shift 3
  rm -f "$results"
  (cd "$top/console" && "$@") > "$log" 2>&1
  read_figures=$(node -e "const r = JSON.parse(require('fs').readFileSync('$results', 'utf8')); console.log($figures)" 2>> "$log")
  if [ -z "$read_figures" ]; then
    count 0 1 0
    echo "  FAILED  $name ended without a result"
    tail -40 "$log"
    return
  fi
  read -r good bad left <<< "$read_figures"
  count "$good" "$bad" "$left"
  echo "  $([ "$bad" -eq 0 ] && echo ok || echo FAILED)      $name: $((good + bad + left)) tests"
  [ "$bad" -eq 0 ] || tail -60 "$log"
}

# Packages with known faults, by what the registries tell today: said, and never a failure, since no change of ours brought them.
audit() {
  local log=$built/test-audit.log nuget npm
  dotnet list "$top/JustRight.slnx" package --vulnerable --include-transitive --format json > "$log" 2>&1
  nuget=$(node -e '
    const r = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
    const said = new Set((r.problems ?? []).map((p) => p.text));
    for (const f of (r.projects ?? []).flatMap((p) => p.frameworks ?? []))
      for (const k of [...(f.topLevelPackages ?? []), ...(f.transitivePackages ?? [])])
        for (const v of k.vulnerabilities ?? []) said.add(`${v.severity}: ${k.id} ${k.resolvedVersion} ${v.advisoryurl}`);
    console.log([...said].join("\n"));' "$log" 2>&1)
  npm=$(cd "$top/console" && npm audit --json 2>> "$log" | node -e '
    const r = JSON.parse(require("fs").readFileSync(0, "utf8"));
    if (r.error || r.message) console.log("npm could not ask: " + (r.error?.summary ?? r.message));
    for (const v of Object.values(r.vulnerabilities ?? {})) console.log(`${v.severity}: ${v.name} ${v.range}`);' 2>> "$log")
  count 1 0 0
  if [ -z "$nuget$npm" ]; then
    echo "  ok      no package has a known fault"
  else
    echo "  WARNING packages with known faults, or registries that could not be asked (this breaks nothing):"
    printf '%s\n%s\n' "$nuget" "$npm" | sed '/^$/d; s/^/          /'
  fi
}
