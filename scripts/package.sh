#!/usr/bin/env bash
# Makes the service a folder that needs nothing installed: program, runtime, console and simulation.
#   scripts/package.sh [x64|arm64]     into .build/package/justright-service-linux-x64 and a .tar.gz beside it
set -euo pipefail
. "$(dirname "$(readlink -f "$0")")/build.sh"

machine=${1:-x64}
case $machine in
  x64 | arm64) ;;
  *) echo "Usage: scripts/package.sh [x64|arm64]" >&2; exit 2 ;;
esac
name=justright-service-linux-$machine
folder=$built/package/$name

build_console
rm -rf "$folder" "$folder.tar.gz"
mkdir -p "$folder"
say "Packaging the service for $machine …"
# In a copy of the sources: what is restored for one machine is no longer what another build expects.
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
(cd "$top" && tar --exclude=bin --exclude=obj -cf - src demo-data Directory.Build.props Directory.Packages.props .editorconfig global.json) \
  | tar -C "$work" -xf -
[ ! -f "$top/nuget.config" ] || cp "$top/nuget.config" "$work"
dotnet publish "$work/src/JustRight.Service" -c Release -r "linux-$machine" --self-contained true \
  -p:UseCurrentRuntimeIdentifier=false -p:DebugType=none -v q -o "$folder"
cp "$top/packaging/justright-service" "$top/packaging/justright.service" "$top/packaging/Containerfile" "$folder"
cp -r "$top/console/dist" "$folder/console"
tar -C "$built/package" -czf "$folder.tar.gz" "$name"
say "$folder.tar.gz: $(du -h "$folder.tar.gz" | cut -f1)"
