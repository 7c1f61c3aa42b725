#!/usr/bin/env bash
# Starts the packaged service with nothing else in reach, as on a machine that has no runtime, and asks it.
set -euo pipefail
. "$(dirname "$(readlink -f "$0")")/build.sh"

"$top/scripts/package.sh" x64
work=$(mktemp -d)
trap '[ -z "${service:-}" ] || kill "$service" 2> /dev/null || true; rm -rf "$work"' EXIT
tar -C "$work" -xzf "$built/package/justright-service-linux-x64.tar.gz"
program=$work/justright-service-linux-x64/justright-service
alone=(env -i HOME="$work" PATH=/usr/bin:/bin DOTNET_ROOT=/nowhere)

says() { grep -q -- "$1" <<< "$2" || { echo "It does not say $1: $2"; exit 1; }; }

says 0.2 "$("${alone[@]}" "$program" --version)"
says --from "$("${alone[@]}" "$program" restore --help)"
"${alone[@]}" "$program" --urls http://127.0.0.1:5897 --JustRight:Data "$work/data" > "$work/said" 2>&1 &
service=$!
for _ in $(seq 600); do
  grep -q "enter#" "$work/said" && break
  kill -0 "$service" || { cat "$work/said"; exit 1; }
  sleep 0.1
done
says '"status":"Healthy"' "$(curl -sf http://127.0.0.1:5897/health)"
says '"FitView"' "$(curl -sf http://127.0.0.1:5897/openapi/v1.json)"
says '<div id="root">' "$(curl -sf http://127.0.0.1:5897/installs)"
code=$(grep -o 'enter#.*' "$work/said" | head -1 | cut -d'#' -f2)
token=$(curl -sf -H 'Content-Type: application/json' -d "{\"code\":\"$code\",\"name\":\"check\"}" http://127.0.0.1:5897/api/tokens/claim \
  | grep -o '"token":"[^"]*"' | cut -d'"' -f4)
curl -sf -H "Authorization: Bearer $token" -H 'Content-Type: application/yaml' --data-binary "@$top/demo-data/estates/fennmoor.yaml" \
  "http://127.0.0.1:5897/api/estates?file=fennmoor.yaml" > /dev/null
says fennmoor "$(curl -sf -H "Authorization: Bearer $token" http://127.0.0.1:5897/api/estates)"
kill -TERM "$service"
wait "$service"
if command -v systemd-analyze > /dev/null; then
  sed "s|/opt/justright|$(dirname "$program")|g" "$top/packaging/justright.service" > "$work/justright.service"
  wrong=$(systemd-analyze verify "$work/justright.service" 2>&1) && [ -z "$wrong" ] || { echo "$wrong"; exit 1; }
fi
"$top/scripts/package.sh" arm64
file=$built/package/justright-service-linux-arm64/JustRight.Service
[ "$(od -An -tx1 -j18 -N2 "$file" | tr -d ' ')" = b700 ] # EM_AARCH64 [ELF for the Arm 64-bit Architecture]
