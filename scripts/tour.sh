# Sourced by demo --tour: the main job from sheet to just right, each command with its output. Ends with a non-zero code when a
# command does not end as it should, and leaves nothing running.

tour_data=$(mktemp -d)
trap 'stop_service; rm -rf "$tour_data"' EXIT
address=http://127.0.0.1:$((5900 + RANDOM % 900))
start_service "$tour_data" 1
export JUSTRIGHT_SETTINGS=$tour_data/client.json JUSTRIGHT_ADDRESS=$address
cd "$top"

tell() { printf '\n# %s\n' "$*"; }

# Runs a client command, shows it, and holds its exit code against the one expected.
run() {
  local expected=$1 code=0
  shift
  printf '\n$ justright'
  printf ' %s' "$@"
  printf '\n'
  client "$@" || code=$?
  [ "$code" -eq "$expected" ] || { say "The tour expected exit code $expected and got $code."; exit 1; }
}

tell "Sign the client in with the one-time link that the service printed at its first start."
printf '\n$ justright token claim (the link)\n'
client token claim "$(link "$tour_data" 1)"

tell "What the products need (sheets), the surroundings (estate), and one product in them (install)."
run 0 sheet check demo-data/sheets/thermograph.yaml
run 0 sheet add demo-data/sheets/thermograph.yaml
run 0 sheet add demo-data/sheets/tallystick.yaml
run 0 sheet add demo-data/sheets/roundsman.yaml
run 0 sheet add demo-data/sheets/nightchurn.yaml
run 0 sheet add demo-data/sheets/wheyline.yaml
run 0 sheet add demo-data/sheets/quernstone.yaml
run 0 sheet add demo-data/sheets/curdhouse.yaml
run 0 sheet add demo-data/sheets/rennet-roster.yaml
run 0 sheet add demo-data/sheets/brinebook.yaml
run 0 sheet add demo-data/sheets/millrace.yaml
cp demo-data/estates/fennmoor.yaml "$tour_data/fennmoor.yaml"
printf '  watch: { every-hours: 24 }\n' >> "$tour_data/fennmoor.yaml"
run 0 estate add "$tour_data/fennmoor.yaml"
run 0 install add demo-data/installs/thermograph-dataroom.yaml
run 0 install add demo-data/installs/tallystick-dataroom.yaml
run 0 install add demo-data/installs/roundsman-dataroom.yaml
run 0 install add demo-data/installs/nightchurn-dataroom.yaml
run 0 install add demo-data/installs/wheyline-lines.yaml
run 0 install add demo-data/installs/quernstone-sql01.yaml
run 0 install add demo-data/installs/quernstone-sql02.yaml
run 0 install add demo-data/installs/curdhouse-books.yaml
run 0 install add demo-data/installs/rennet-roster-plants.yaml
run 0 install add demo-data/installs/brinebook-contractors.yaml
run 0 install add demo-data/installs/millrace-gateway.yaml

tell "A sheet with a typing error is refused, with the place and the fix (exit code 2)."
sed 's/local-group: Administrators, on: console-server/local-group: Administrators, on: console-sever/' demo-data/sheets/thermograph.yaml > "$tour_data/slip.yaml"
run 2 sheet check "$tour_data/slip.yaml"

tell "The plan: sheet, estate and install together."
run 0 plan thermograph-dataroom

tell "Verify: met, missing, pending, unseen, excess and forbidden, each with its path (exit code 1: something deviates). One host is restarting."
run 1 verify thermograph-dataroom

tell "Why does the archivist hold sysadmin, and what is wrong with that?"
run 0 why thermograph-dataroom archivist sysadmin fm-sql01

tell "Grant what is missing. Each step is logged, made, and checked. The host is back."
run 0 grant thermograph-dataroom --yes

tell "Nothing is missing any more; the rest is pending or excess."
run 1 verify thermograph-dataroom --brief

tell "Remove what is excess and forbidden, now that the small rights are there."
run 0 grant thermograph-dataroom --remove --yes

tell "Just right (exit code 0)."
run 0 verify thermograph-dataroom

tell "A second grant has nothing to do."
run 0 grant thermograph-dataroom --yes

tell "Tallystick: a log-on right that a group denies; no grant would fix that, so none is offered."
run 1 verify tallystick-dataroom --brief
run 0 why tallystick-dataroom counter log on as a service

tell "Its setup account gets two small roles directly; its counter gets one right through a local group of the database's host. The whole path is shown."
run 0 grant tallystick-dataroom --yes
run 0 why tallystick-dataroom installer dbcreator
run 0 why tallystick-dataroom counter Performance

tell "Roundsman writes two attributes of all people and manages teams: three ACEs and a role group are missing, and a leftover right resets passwords."
run 1 verify roundsman-dataroom --brief
run 0 grant roundsman-dataroom --yes
run 0 grant roundsman-dataroom --remove --yes

tell "Nine people still refuse it. Where, why, and what would fix it?"
run 1 verify roundsman-dataroom --brief
run 1 trace fennmoor --service RoundsmanCopier --attribute roomNumber --attribute wWWHomePage | tee "$tour_data/trace"
trace=$(grep -o 'fix [0-9a-f]* 1-inherit' "$tour_data/trace" | cut -d' ' -f2)

tell "Would one of them grant it if inheritance were enabled there?"
run 0 trace fennmoor svc-roundsman --attribute roomNumber --object m.northam --if-inheriting "OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"

tell "Carry out the fix that enables inheritance, for everybody's rights; then it is just right."
run 0 fix "$trace" 1-inherit --yes | tee "$tour_data/fix"
run 0 verify roundsman-dataroom

tell "That gave more than intended. Undo it: every ACL is as before. Then give the right on the spot instead."
run 0 undo "$(grep -o 'justright undo [0-9a-f]*' "$tour_data/fix" | cut -d' ' -f3)" --yes
run 0 fix "$trace" 1-spot --yes
run 0 verify roundsman-dataroom --brief

tell "Nightchurn: a group policy governs the log-on rights (User Rights Assignment). A grant on the host lasts until the next policy refresh, and so would setup's grant."
run 1 verify nightchurn-dataroom
run 0 why nightchurn-dataroom jobs batch

tell "Nobody should sit down with the jobs' account: the sheet keeps it out of desks and remote desktops. Denied is met; what lets it in today is said."
run 0 why nightchurn-dataroom jobs "deny log on locally"

tell "So both log-on rights go into the policy, with its complete new list and the hosts it applies to; the change applies after a policy refresh. The denials, which no policy governs, go on the host's own lists."
run 0 grant nightchurn-dataroom --yes
run 0 verify nightchurn-dataroom --brief

tell "Wheyline: the recorder accepts readings from the lines' computer accounts. The sender gets a named account: rights, dependencies, account, restart. It waits for the tanker scale, and that for the event log. On fm-line02 somebody set the account and did not restart the service."
run 1 verify wheyline-lines
printf 'simulated-svc-whey-sender' > "$tour_data/sender"
printf '\n$ justright secret set svc-whey-sender < sender\n'
client secret set svc-whey-sender < "$tour_data/sender"
run 0 grant wheyline-lines --yes | tee "$tour_data/swap"

tell "Now that both senders run as their account, the computer accounts are removed from the group and the database."
run 1 verify wheyline-lines --brief
run 0 grant wheyline-lines --remove --yes
run 3 verify wheyline-lines --brief

tell "One need is left that no survey can read: the identity inside the recorder. Wheyline's administrator looks it up and confirms it; the confirmation has a name, a time and an end date."
run 0 handover wheyline-lines --team product --form markdown
run 0 confirm wheyline-lines
run 0 confirm wheyline-lines sender "Tanker clerk" --seen-by "Nell Hathersage"
run 0 verify wheyline-lines

tell "Curdhouse, the recipe and label book, was set up last week. Its account 'fitter' still holds two instance roles, administers both servers and owns the database: all removed, and the account 'book' becomes the owner. fm-sql04 is the failover partner of fm-sql03 and has no login for that account yet."
tell "On fm-book02 the card service runs as 'labeller': somebody changed it one evening to get the labels out."
run 1 verify curdhouse-books --brief
run 0 instance fennmoor fm-sql03
printf 'simulated-svc-curd-cards' > "$tour_data/cards"
printf '\n$ justright secret set svc-curd-cards < cards\n'
client secret set svc-curd-cards < "$tour_data/cards"
run 0 grant curdhouse-books --yes
run 0 grant curdhouse-books --remove --yes
run 0 verify curdhouse-books --brief

tell "Its passwords: Curdhouse changes two, the directory changes the one of 'lookup' (a gMSA), and we renew the one of 'cards'. It is typed in two services and in one setting of the product."
run 1 password due fennmoor
run 0 password where-used fennmoor svc-curd-cards
run 0 password try fennmoor svc-curd-cards
tell "The renewal is ordered for the least downtime. The setting needs a person (exit code 4): until then that place still has the old password."
run 4 password renew fennmoor svc-curd-cards --yes
run 0 password done fennmoor svc-curd-cards --note "typed by Jory Lind"
run 0 password try fennmoor svc-curd-cards
run 2 password renew fennmoor svc-curd-book

tell "Outside Just Right somebody adds the account 'labeller' to a group on fm-book01. The scheduled survey, started at once here, finds it and notifies the recipients in the estate. We remove it."
run 0 schedule fennmoor
printf '(somebody changes the simulated estate: svc-curd-labeller into Event Log Readers on fm-book01)\n'
node -e 'const fs = require("fs"), simulation = JSON.parse(fs.readFileSync(process.argv[1])); simulation.hosts.find((h) => h.name === "fm-book01").localGroups.find((g) => g.name === "Event Log Readers").members.push("svc-curd-labeller"); fs.writeFileSync(process.argv[1], JSON.stringify(simulation));' "$tour_data/simulation/fennmoor.json"
run 0 schedule fennmoor --now
run 0 notifications fennmoor
run 1 drift curdhouse-books
run 0 grant curdhouse-books --remove --yes
run 0 drift curdhouse-books
run 0 history curdhouse-books

tell "Quernstone watches two database servers. The small set of rights depends on the release of each."
run 1 verify quernstone-sql02
tell "On fm-sql01 its account holds sysadmin, which works for every release and is more than it needs: excess."
run 1 verify quernstone-sql01
run 0 why quernstone-sql01 watcher sysadmin

tell "Maud Ferris accepts it until a date, for a reason. The verdict stays; every report shows the exception beside it. Jory Lind reviews that fit."
run 0 exception allow quernstone-sql01 watcher sysadmin --why "until the next release" --until "$(date -u -d '+90 days' +%F)" --by "Maud Ferris"
run 0 verify quernstone-sql01 --brief
run 0 review add quernstone-sql01 --fit "$(client history quernstone-sql01 --json | node -p 'JSON.parse(require("fs").readFileSync(0, "utf8"))[0].number')" --by "Jory Lind" --again-by "$(date -u -d '+180 days' +%F)"
run 0 review sheet quernstone-sql01 --to "$tour_data/quernstone.html"
run 0 report quernstone-sql01
run 0 report quernstone-sql01 --form xlsx --to "$tour_data/quernstone.xlsx"
tell "The evidence of that fit, signed; openssl checks it without Just Right."
run 0 evidence write quernstone-sql01 --to "$tour_data/evidence.json"
client evidence key > "$tour_data/key.pem"
node -e 'const fs = require("fs"), e = JSON.parse(fs.readFileSync(process.argv[1] + "/evidence.json")); fs.writeFileSync(process.argv[1] + "/signed", e.protected + "." + e.payload); fs.writeFileSync(process.argv[1] + "/signature", Buffer.from(e.signature, "base64url"));' "$tour_data"
printf '\n$ openssl dgst -sha256 -verify key.pem -signature signature signed\n'
openssl dgst -sha256 -verify "$tour_data/key.pem" -signature "$tour_data/signature" "$tour_data/signed"
tell "What expires or is due, and when."
run 0 calendar fennmoor
run 0 calendar fennmoor --to "$tour_data/fennmoor.ics"
tell "The exception is ended early, and the right is removed."
run 0 exception end quernstone-sql01 1

tell "The small set is granted first, then the big role is removed. The DBAs get scripts: one to give, one to check, one to undo."
run 0 handover quernstone-sql01 --to "$tour_data/handovers"
sed -n 1,30p "$tour_data"/handovers/quernstone-sql01-database-fm-sql01/give.sql
run 0 grant quernstone-sql01 --yes
run 0 grant quernstone-sql01 --remove --yes
run 0 verify quernstone-sql01 --brief

tell "fm-sql02 over the wire: a simulated instance speaks the engine's own protocol over TLS with the engine maker's real client library. There is no real engine behind it."
export JUSTRIGHT_SIMULATED_PASSWORD=$RANDOM-simulated-$RANDOM
sql_port=$((7000 + RANDOM % 900))
dotnet "$built/simulated-instance/JustRight.SimulatedInstance.dll" "$tour_data/simulation/fennmoor.json" fm-sql02 16.0 "$sql_port" "$tour_data/fm-sql02.pem" > "$tour_data/simulated" &
simulated_pid=$!
trap 'kill $simulated_pid 2>/dev/null || true; stop_service; rm -rf "$tour_data"' EXIT
for _ in $(seq 100); do grep -q listens "$tour_data/simulated" && break; sleep 0.1; done
cat "$tour_data/simulated"
sed "s|fm-sql02: { host: fm-sql02, engine: sqlserver, release: \"16.0\" }|fm-sql02: { host: fm-sql02, engine: sqlserver, release: \"16.0\", reach: tls, address: localhost, port: $sql_port, certificate: $tour_data/fm-sql02.pem, sign-in-as: justright, secret: fm-sql02 }|" \
  demo-data/estates/fennmoor.yaml > "$tour_data/estate.yaml"
run 0 estate add "$tour_data/estate.yaml" --yes
printf '\n$ justright secret set fm-sql02 < password\n'
printf %s "$JUSTRIGHT_SIMULATED_PASSWORD" | client secret set fm-sql02
tell "The secret is kept, and goes nowhere yet: an owner allows it for this address, this login and this certificate, and for nothing else."
run 3 verify quernstone-sql02 --brief
run 0 secret list
run 0 secret allow fm-sql02 --yes
run 1 verify quernstone-sql02 --brief
run 0 grant quernstone-sql02 --yes | tee "$tour_data/wire"
run 0 verify quernstone-sql02
run 0 undo "$(grep -o 'justright undo [0-9a-f]*' "$tour_data/wire" | cut -d' ' -f3)" --yes
run 1 verify quernstone-sql02 --brief
kill $simulated_pid
tell "The instance has stopped: what cannot be read is unseen, with the reason, and never counts as fine (exit code 3)."
run 3 verify quernstone-sql02 --brief
run 0 estate add demo-data/estates/fennmoor.yaml --yes

pg_folder=
if [ -n "$(postgresql_programs)" ]; then
  tell "fm-pg01 is a real PostgreSQL server, started for this tour on loopback: another family, other words for the same need."
  pg_folder=$(mktemp -d)
  trap 'stop_postgresql "$pg_folder"; stop_service; rm -rf "$tour_data"' EXIT
  start_postgresql "$pg_folder"
  postgresql_estate "$pg_folder" > "$tour_data/estate.yaml"
  run 0 estate add "$tour_data/estate.yaml" --yes
  printf '\n$ justright secret set fm-pg01 < password\n'
  client secret set fm-pg01 < "$pg_folder/password"
  run 0 secret allow fm-pg01 --yes
  postgresql_install > "$tour_data/quernstone-pg01.yaml"
  run 0 install add "$tour_data/quernstone-pg01.yaml" --yes
  run 1 verify quernstone-pg01
  run 0 handover quernstone-pg01 --to "$tour_data/handovers"
  sed -n 1,40p "$tour_data"/handovers/quernstone-pg01-database-fm-pg01/give.sql
  run 0 grant quernstone-pg01 --yes | tee "$tour_data/pg"
  run 0 verify quernstone-pg01
  run 0 undo "$(grep -o 'justright undo [0-9a-f]*' "$tour_data/pg" | cut -d' ' -f3)" --yes
  run 1 verify quernstone-pg01 --brief
else
  tell "A real PostgreSQL server would come here: its programs are not installed (Debian: postgresql)."
fi

tell "Rennet Roster lets people sign in with their domain account. Before: the bind account does not exist, and nothing after the bind can be tested."
run 3 sign-in try rennet-roster-plants
tell "The worklist creates the bind account, in the OU for such accounts, and the group of those who may sign in, with the rounds' teams in it. An SPN lets browsers of the domain sign in by themselves; nobody else has it."
run 0 grant rennet-roster-plants --yes
tell "The sign-in settings of the roster, with reasons. Nothing is wrong; two notes."
run 0 sign-in settings rennet-roster-plants
run 0 sign-in file rennet-roster-plants
tell "After: the sign-in test does what the roster will do. Ada Brandt types her password; it is stored nowhere. What cannot be seen from here stays unseen (exit code 3)."
printf 'simulated-a.brandt\n' > "$tour_data/ada"
printf '\n(standard input: the password that Ada Brandt types)'
run 3 sign-in try rennet-roster-plants --type-person < "$tour_data/ada"

tell "Brinebook has a directory of the inetOrgPerson family. Eight contractors are expected, seven are found: who is missing, and who is not expected."
printf 'simulated-brinebook' > "$tour_data/brinebook"
printf '\n$ justright secret set brinebook < brinebook\n'
client secret set brinebook < "$tour_data/brinebook"
run 0 sign-in file brinebook-contractors
run 1 sign-in try brinebook-contractors

tell "Millrace shows administrators the groups whose names start with vpn-, without built-in groups. Its unencrypted connection is reported, and so are the rights of its old account."
printf 'simulated-svc-millrace' > "$tour_data/millrace"
printf '\n$ justright secret set svc-millrace < millrace\n'
client secret set svc-millrace < "$tour_data/millrace"
run 1 sign-in settings millrace-gateway
run 1 sign-in try millrace-gateway
run 1 verify millrace-gateway

tell "Two needs of the gateway no reader can see: tasks. A person does them and proves it, one after the other; a proof that looks like it holds a password is refused."
run 0 confirm millrace-gateway
run 2 confirm millrace-gateway lookup first-administrator --proof "the new password is Kettle9!"
run 0 confirm millrace-gateway lookup first-administrator --seen-by "Maud Ferris" --proof "the gateway refused the name that the book prints"
run 0 confirm millrace-gateway
run 0 proof list millrace-gateway

tell "A filter in words, and whom it finds among the people last read; a typing error is pointed at."
run 0 sign-in filter fennmoor staff '(&(objectCategory=person)(memberOf:1.2.840.113556.1.4.1941:=CN=vpn-drivers,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example))' --below OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example
run 2 sign-in filter fennmoor staff '(&(objectCategory=person)(cn=a*)'

tell "Tallystick is retired. The depot's Thermograph uses the account of Tallystick's counter: what that install needs stays, and the list says for whom."
run 0 install add demo-data/later/thermograph-depot.yaml
run 1 verify thermograph-depot --brief
run 0 install stage tallystick-dataroom retiring
run 1 verify tallystick-dataroom
tell "First the account that only Tallystick used is disabled, then the rights that only Tallystick needed are removed. Accounts and groups are deleted after thirty days, not before (exit code 4)."
run 0 grant tallystick-dataroom --remove --yes | tee "$tour_data/retired"
run 0 verify tallystick-dataroom
run 0 why thermograph-depot poller Administrators
run 4 grant tallystick-dataroom --remove
tell "Until then undo restores everything. Then it is removed again."
run 0 undo "$(grep -o 'justright undo [0-9a-f]*' "$tour_data/retired" | cut -d' ' -f3)" --yes
run 0 grant tallystick-dataroom --remove --yes

tell "A second Thermograph, from a sheet in which a local group is misspelled: the two steps that would fail are blocked, with the nearest name; the twenty others are made."
sed 's/Event Log Readers/Event Log Raeders/; s/release: "4.2"/release: "4.2.1"/' demo-data/sheets/thermograph.yaml > "$tour_data/misspelled.yaml"
sed 's/release: "4.2"/release: "4.2.1"/; s/name: thermograph-dataroom/name: thermograph-cellar/' demo-data/installs/thermograph-dataroom.yaml > "$tour_data/cellar.yaml"
run 0 sheet add "$tour_data/misspelled.yaml"
run 0 install add "$tour_data/cellar.yaml"
run 0 grant thermograph-cellar --yes
tell "The sheet is corrected, and the rest is granted. Both runs are listed; the second is undone, and says so."
sed 's/release: "4.2"/release: "4.2.1"/' demo-data/sheets/thermograph.yaml > "$tour_data/corrected.yaml"
run 1 sheet add "$tour_data/corrected.yaml" --list
run 0 sheet add "$tour_data/corrected.yaml" --yes
run 0 grant thermograph-cellar --yes | tee "$tour_data/rest"
run 0 run list thermograph-cellar
second=$(grep -o 'justright undo [0-9a-f]*' "$tour_data/rest" | cut -d' ' -f3)
run 0 run undo "$second" --yes
run 0 run show "$second"

tell "Thermograph 5.0 is coming: what it needs anew, differently and no more, and the steps; its new place is asked. What 4.2 needs stays, as an install of its own."
run 0 install stage thermograph-dataroom installed
run 0 sheet add demo-data/later/thermograph-5.0.yaml
run 1 install upgrade thermograph-dataroom --to thermograph@5.0 --say places.web-server=fm-temp02 --list
run 0 install upgrade thermograph-dataroom --to thermograph@5.0 --say places.web-server=fm-temp02 --yes
run 0 grant thermograph-dataroom --yes
tell "5.0 is installed, and 4.2 is gone: what only 4.2 needed is removed, but for what the Thermograph in the cellar, still of 4.2, needs (exit code 4)."
run 0 install stage thermograph-dataroom installed
run 0 install stage thermograph-dataroom-4-2 retiring
run 0 grant thermograph-dataroom --remove --yes
run 4 grant thermograph-dataroom-4-2 --remove --yes

tell "The first day: a vendor's table becomes a sheet, and is tried on a simulation of one's own estate; the files are those of docs/your-first-product.md."
first=$tour_data/first
mkdir "$first"
node -e 'const fs = require("fs"); for (const [, name, text] of fs.readFileSync("docs/your-first-product.md", "utf8").matchAll(/`([\w-]+\.(?:csv|yaml))`(?:(?!```|`)[\s\S])*?```(?:csv|yaml)\n([\s\S]*?)```/g)) fs.writeFileSync(`${process.argv[1]}/${name}`, text);' "$first"
run 0 sheet draft --from "$first/thermograph.csv" --product thermograph --release 4.2.2 --to "$first/thermograph.yaml"
run 0 sheet add "$first/thermograph.yaml"
run 0 estate add "$first/highfield.yaml"
sed -i 's/release: "4.2"/release: "4.2.2"/' "$first/thermograph-plant.yaml"
run 0 install add "$first/thermograph-plant.yaml"
run 0 estate rehearse highfield
run 1 verify thermograph-plant-rehearsal
run 0 grant thermograph-plant-rehearsal --yes
run 0 estate rehearse highfield --setup thermograph-plant-rehearsal
run 0 grant thermograph-plant-rehearsal --remove --yes
run 0 verify thermograph-plant-rehearsal
run 2 ldif thermograph-plant-rehearsal
run 0 estate rehearse highfield --end

tell "All installs at a glance, and who did what."
run 0 install list
run 0 log list --take 12
run 0 log check
printf '\nThe tour ends well.\n'
