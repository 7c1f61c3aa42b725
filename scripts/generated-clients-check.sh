#!/usr/bin/env bash
# Generates clients from the description of the API, in C# and in TypeScript, and uses the built service through each of them.
set -euo pipefail
. "$(dirname "$(readlink -f "$0")")/build.sh"

description=$top/docs/api/openapi.json
clients=$top/tests/GeneratedClients
generated=$built/generated
work=$(mktemp -d)
trap '[ -z "${service:-}" ] || kill "$service" 2> /dev/null || true; rm -rf "$work"' EXIT
rm -rf "$generated"

generator=$built/client-generator/kiota
[ -x "$generator" ] || dotnet tool install Microsoft.OpenApi.Kiota --tool-path "$(dirname "$generator")" --version 1.38.0
KIOTA_OFFLINE_ENABLED=true KIOTA_TELEMETRY_OPTOUT=true "$generator" generate --language CSharp --openapi "$description" \
  --output "$generated/csharp" --class-name JustRightClient --namespace-name JustRight.Generated --exclude-backward-compatible \
  --structured-mime-types application/json
dotnet build "$clients/CSharp" -c Release -v q -o "$generated/csharp-program"

cd "$clients/TypeScript"
npm ci --no-audit --no-fund
npx openapi-ts --input "$description" --output "$generated/typescript" --client @hey-api/client-fetch
npx tsc

dotnet "$built/service/JustRight.Service.dll" --urls http://127.0.0.1:0 --JustRight:Data "$work/data" \
  --JustRight:SignInLinks 2 > "$work/said" 2>&1 &
service=$!
for _ in $(seq 600); do
  [ "$(grep -c 'enter#' "$work/said")" -lt 2 ] || break
  kill -0 "$service" || { cat "$work/said"; exit 1; }
  sleep 0.1
done
address=$(grep -oE 'http://127\.0\.0\.1:[0-9]+' "$work/said" | head -1)
mapfile -t codes < <(grep -o 'enter#.*' "$work/said" | cut -d'#' -f2)
dotnet "$generated/csharp-program/GeneratedClient.dll" "$address" "${codes[0]}" "$top/demo-data"
node "$(find "$generated/javascript" -name use.js)" "$address" "${codes[1]}" "$top/demo-data"
