#!/usr/bin/env bash
# Takes the pictures of the client in docs/screenshots anew, in a terminal window. Needs what it installs: xvfb, xterm, imagemagick.
set -euo pipefail
. "$(dirname "$(readlink -f "$0")")/build.sh"
need_packages xvfb xterm imagemagick fonts-dejavu-core
build_all
data=$(mktemp -d)
dotnet "$built/service/JustRight.Service.dll" --urls http://127.0.0.1:5899 --JustRight:Data "$data" --JustRight:SignInLinks 1 > "$data/output" 2>&1 &
service=$!
Xvfb :77 -screen 0 1280x800x24 > /dev/null 2>&1 &
screen=$!
trap 'kill $service $screen; rm -rf "$data"' EXIT
export JUSTRIGHT_SETTINGS=$data/client.json JUSTRIGHT_ADDRESS=http://127.0.0.1:5899
until grep -q '^One-time' "$data/output"; do sleep 0.2; done
client=$built/client/justright
"$client" token claim "$(sed -n 's/^One-time.*: //p' "$data/output")" > /dev/null
for kind in sheet estate install; do for file in "$top/demo-data/${kind}s"/*.yaml; do "$client" $kind add "$file" > /dev/null; done; done
# Runs a command in a terminal window and takes its picture once it has ended and the window shows it.
picture() {
  rm -f "$data/ended"
  DISPLAY=:77 xterm -geometry 182x57+0+0 -fa 'DejaVu Sans Mono' -fs 8 -bg '#1a1a1a' -fg '#ececec' -bw 0 -e bash -c "$2; touch '$data/ended'; sleep 600" &
  until [ -e "$data/ended" ]; do sleep 0.2; done
  sleep 2
  DISPLAY=:77 import -window root "$top/docs/screenshots/$1.png"
  kill $!
}
PATH=$built/client:$PATH
picture verify "echo '$ justright verify thermograph-dataroom --brief'; TERM=xterm-256color justright verify thermograph-dataroom --brief"
"$client" verify thermograph-dataroom > /dev/null || true
picture grant "echo '$ justright grant thermograph-dataroom --yes'; TERM=xterm-256color justright grant thermograph-dataroom --yes"
