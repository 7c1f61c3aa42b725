#!/usr/bin/env bash
# Makes the data that a release leaves behind, for the tests of the releases after it: scripts/golden.sh 2026-11
# Runs the built service and client through everything that is stored, and packs the data folder, with the keys of its own that it
# was made with, into tests/golden/RELEASE/. Run it once a release, with that release's code, and never again for the same one.
set -euo pipefail
. "$(dirname "$(readlink -f "$0")")/build.sh"
release=${1:?Usage: scripts/golden.sh RELEASE, such as 2026-11}
to=$top/tests/golden/$release
[ ! -e "$to" ] || { say "tests/golden/$release is there already, and stays as it is."; exit 1; }
build_service
build_client

work=$(mktemp -d)
data=$work/data
address=http://127.0.0.1:$((7000 + RANDOM % 900))
export JUSTRIGHT_SETTINGS=$work/client.json JUSTRIGHT_ADDRESS=$address
service=
trap '[ -z "$service" ] || kill "$service" 2> /dev/null || true; rm -rf "$work"' EXIT
mkdir -p "$data"
dotnet "$built/service/JustRight.Service.dll" --urls "$address" --JustRight:Data "$data" --JustRight:SignInLinks 2 > "$work/output" 2>&1 &
service=$!
until [ "$(grep -c '^One-time' "$work/output")" -eq 2 ]; do
  kill -0 "$service" 2> /dev/null || { cat "$work/output" >&2; exit 1; }
  sleep 0.1
done

# Runs the client; a code other than the expected one ends the script.
run() {
  local expected=$1 code=0
  shift
  "$built/client/justright" "$@" > "$work/said" 2>&1 || code=$?
  [ "$code" -eq "$expected" ] || { say "justright $*: expected exit code $expected and got $code"; cat "$work/said" >&2; exit 1; }
}
# What the last command said of a name: the job or trace after a word.
said() { grep -oE "$1 [0-9a-f-]+" "$work/said" | head -1 | awk '{print $NF}'; }
# A secret by its name.
secret() { printf %s "$2" > "$work/secret" && "$built/client/justright" secret set "$1" < "$work/secret" > /dev/null; }
day() { date -u -d "$1" +%F; }

# Signs a person in with a link, for the client's settings file $2.
sign_in() {
  node -e '
    const [address, link, name, file] = process.argv.slice(1);
    const body = JSON.stringify({ code: link.split("#")[1], name });
    fetch(`${address}/api/tokens/claim`, { method: "POST", headers: { "content-type": "application/json" }, body })
      .then((r) => r.json())
      .then(({ token }) => require("fs").writeFileSync(file, JSON.stringify({ Tokens: { [address]: token } })));' \
    "$address" "$(sed -n 's/^One-time.*: //p' "$work/output" | sed -n "$1p")" "$3" "$2"
}
# A value out of what the client says as JSON; $1 is an expression over it, as r.
from_json() {
  local expression=$1
  shift
  "$built/client/justright" "$@" --json | node -p "const r = JSON.parse(require('fs').readFileSync(0, 'utf8')); $expression"
}

sign_in 1 "$JUSTRIGHT_SETTINGS" "Jory Lind"
sign_in 2 "$work/second.json" "Maud Ferris"
for kind in sheet estate install; do
  for file in "$top/demo-data/${kind}s"/*.yaml; do run 0 "$kind" add "$file"; done
done

# Grants, removals, undone ones; a remedy of a trace; deletion protection.
run 1 verify thermograph-dataroom
run 0 grant thermograph-dataroom --yes
run 0 grant thermograph-dataroom --remove --yes
run 0 verify thermograph-dataroom
run 0 grant roundsman-dataroom --yes
run 0 grant roundsman-dataroom --remove --yes
run 1 trace fennmoor --service RoundsmanCopier --attribute roomNumber --attribute wWWHomePage
trace=$(said fix)
run 0 fix "$trace" 1-inherit --yes
run 0 undo "$(said undo)" --yes
run 0 fix "$trace" 1-spot --yes
run 0 protect fennmoor service-accounts --set --yes
run 0 grant nightchurn-dataroom --yes

# Services that change their account; what a person confirms.
secret svc-whey-sender simulated-svc-whey-sender
run 0 grant wheyline-lines --yes
run 0 grant wheyline-lines --remove --yes
run 0 confirm wheyline-lines sender "Tanker clerk" --seen-by "Nell Hathersage"

# A password renewed, and another renewal that waits for a person; a place that somebody told of; one handed over, one not.
secret svc-curd-cards simulated-svc-curd-cards
run 0 grant curdhouse-books --yes
run 0 grant curdhouse-books --remove --yes
run 0 password where-used add fennmoor svc-curd-cards --in "the night sheet" --setting "reader" --on fm-book01 --breaks "the night list"
run 3 password renew fennmoor svc-curd-cards --yes
run 3 password done fennmoor svc-curd-cards --note "typed by Jory Lind"
run 0 password done fennmoor svc-curd-cards --note "typed by Jory Lind"
run 3 password renew fennmoor svc-curd-cards --yes
run 0 password hand-over fennmoor "$(from_json 'r[0].account.split("\\").pop()' password list thermograph-dataroom)" --show

# What got worse behind our back is told; it is accepted until a day, and reviewed.
run 0 schedule fennmoor --now
node -e '
  const fs = require("fs"), simulation = JSON.parse(fs.readFileSync(process.argv[1]));
  simulation.hosts.find((h) => h.name === "fm-book01").localGroups.find((g) => g.name === "Event Log Readers").members.push("svc-curd-labeller");
  fs.writeFileSync(process.argv[1], JSON.stringify(simulation));' "$data/simulation/fennmoor.json"
run 0 schedule fennmoor --now
run 1 drift curdhouse-books
run 1 verify quernstone-sql01
run 0 exception allow quernstone-sql01 watcher sysadmin --why "until the next release" --until "$(day '+350 days')" --by "Maud Ferris"
run 0 exception allow curdhouse-books labeller "Event Log Readers" --why "looked into" --until "$(day '+300 days')" --by "Maud Ferris"
run 0 exception end curdhouse-books "$(from_json 'r[0].number' exception list curdhouse-books)"
run 0 verify quernstone-sql01
run 0 evidence write quernstone-sql01 --to "$work/evidence.json"
run 0 review add quernstone-sql01 --fit "$(from_json 'r[0].number' history quernstone-sql01)" --by "Jory Lind" --again-by "$(day '+180 days')"

# People who sign in.
run 0 grant rennet-roster-plants --yes
secret brinebook simulated-brinebook
run 1 sign-in try brinebook-contractors

# A product on its way out, and one taken over.
run 0 install add "$top/demo-data/later/thermograph-depot.yaml"
run 0 install stage tallystick-dataroom retiring
run 1 verify tallystick-dataroom
run 0 grant tallystick-dataroom --remove --yes
run 0 adopt begin curdhouse-found --estate fennmoor --product curdfound --release 7.1 --account svc-curd-labeller --account svc-curd-fitter:setup
run 0 adopt answer curdhouse-found needed rest --why "the guide, chapter 2"
run 0 adopt finish curdhouse-found
run 0 adopt begin thermo-found --estate fennmoor --product thermo-found --release 4.1 --account svc-thermo-poller
run 0 adopt answer thermo-found not-sure 1

# An estate on paper: a directory from a file, a host whose owner hands its facts over.
cat > "$work/papers.yaml" << 'YAML'
estate: 1
name: papers
title: Fennmoor Dairy on paper
domain: { dns: fennmoor.example, short: FENNMOOR }
directory: { reach: file }
branches: { accounts: "OU=Service Accounts,DC=fennmoor,DC=example" }
naming: { accounts: "svc-{product}-{account}", groups: "app-{product}-{group}", accounts-in: accounts, groups-in: accounts }
hosts: { fm-rec09: { reach: handed-over } }
YAML
cat > "$work/fm-rec09.json" << JSON
{
  "host-facts": 1, "read-at": "$(date -u +%FT%TZ)", "read-by": "FENNMOOR\\\\t.okoro",
  "host": { "name": "FM-REC09", "domain": "fennmoor.example", "role": "member" },
  "local-groups": [], "rights": [ { "right": "SeBatchLogonRight", "entries": ["*S-1-5-32-544"] } ], "services": []
}
JSON
cat > "$work/directory.ldif" << LDIF
dn:
dnsHostName: fm-dc01.fennmoor.example
currentTime: $(date -u +%Y%m%d%H%M%S).0Z
configurationNamingContext: CN=Configuration,DC=fennmoor,DC=example
schemaNamingContext: CN=Schema,CN=Configuration,DC=fennmoor,DC=example

dn: DC=fennmoor,DC=example
objectClass: top
objectClass: domain
objectClass: domainDNS
objectSid:: AQQAAAAAAAUVAAAAiPzbO1PyKkaKqKYo

dn: OU=Service Accounts,DC=fennmoor,DC=example
objectClass: top
objectClass: organizationalUnit
LDIF
run 0 estate add "$work/papers.yaml"
run 3 survey papers --from "$work/directory.ldif"
run 3 survey papers --facts "$work/fm-rec09.json"

# Two-person approval: a proposal that waits, one that is released, one that was carried out.
printf '  two-person-approval: yes\n' | cat "$top/demo-data/estates/fennmoor.yaml" - > "$work/two-person-approval.yaml"
run 0 estate add "$work/two-person-approval.yaml" --yes
run 0 verify thermograph-dataroom
run 1 verify quernstone-sql02
run 0 grant quernstone-sql02 --yes
JUSTRIGHT_SETTINGS=$work/second.json run 0 proposal approve "$(said approve)" --yes
run 0 proposal carry-out "$(said carry-out)" --yes
run 0 grant quernstone-sql01 --yes
JUSTRIGHT_SETTINGS=$work/second.json run 0 proposal approve "$(said approve)" --yes
run 0 grant thermograph-depot --yes

# What was there to see, counted by this release itself.
mkdir -p "$to"
node -e '
  const [address, settings, file] = process.argv.slice(1);
  const token = JSON.parse(require("fs").readFileSync(settings, "utf8")).Tokens[address];
  const get = async (path) => (await fetch(`${address}/api/${path}`, { headers: { authorization: `Bearer ${token}` } })).json();
  const count = async (path) => (await get(path)).length;
  (async () => {
    const log = await get("log/check");
    const facts = {
      log: log.entries, sheets: await count("sheets"), estates: await count("estates"), secrets: await count("secrets"),
      proposals: await count("proposals"), adoptions: await count("adoptions"), notices: await count("estates/fennmoor/notifications"),
      traces: await count("estates/fennmoor/traces"), installs: {},
    };
    for (const { name } of await get("installs")) {
      const of = (what) => count(`installs/${name}/${what}`);
      facts.installs[name] = {
        fits: await of("history"), exceptions: await of("exceptions"), reviews: await of("reviews"),
        confirmations: await of("confirmations"), passwords: await of("passwords"),
      };
    }
    require("fs").writeFileSync(file, JSON.stringify(facts, null, 2) + "\n");
  })();' "$address" "$JUSTRIGHT_SETTINGS" "$to/facts.json"

kill -TERM "$service"
wait "$service"
service=
rm -rf "$data/logs"
tar -C "$data" --sort=name --owner=0 --group=0 --numeric-owner -czf "$to/data.tar.gz" .
say "tests/golden/$release/data.tar.gz: $(stat -c %s "$to/data.tar.gz") bytes"
