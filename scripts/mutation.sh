# Sourced by test: mutation testing, which puts small faults into the sources and counts those that the tests find.

# Mutates the sources of one folder and runs the tests of its project against each mutant; the report lies in .build/mutation/.
# $2: tests of the core to leave out, as patterns of files with ';' between them.
mutate() {
  local folder=${1%/} project inside others=()
  # Tests of chance say with few cases what they say with many: each mutant is run against all of them.
  export JUSTRIGHT_WORLDS=10 TestsLeftOut=${2:-}
  [[ $folder =~ ^src/(JustRight\.[A-Za-z]+)(/.+)?$ ]] && [ -d "$top/$folder" ] || { say "No folder of sources: $folder. Say it as src/JustRight.Core/Fit."; return 2; }
  project=${BASH_REMATCH[1]} inside=${BASH_REMATCH[2]:-}
  [ -d "$top/tests/$project.Tests" ] || { say "$project has no test project of its own."; return 2; }
  if [ ! -x "$built/mutation/dotnet-stryker" ]; then
    say "Installing the mutation tester …"
    quietly mutation dotnet tool install dotnet-stryker --tool-path "$built/mutation" --version 5.1.0
  fi
  # The planner is tested on the demo's documents, by the tests of the formats; not where tests are chosen.
  [ "$project" != JustRight.Core ] || [ -n "$TestsLeftOut" ] || others=(--test-project "$top/tests/JustRight.Formats.Tests/JustRight.Formats.Tests.csproj"
    --test-project "$top/tests/JustRight.Core.Tests/JustRight.Core.Tests.csproj")
  # Our test framework runs on the testing platform itself; the tester's other runner would not learn which tests reach a mutant.
  cd "$top/tests/$project.Tests" && "$built/mutation/dotnet-stryker" --test-runner mtp --project "$project.csproj" ${others[@]+"${others[@]}"} \
    --mutate "${inside:+**$inside/}**/*.cs" \
    --reporter cleartext --reporter html --reporter json --output "$built/mutation/${folder//\//.}" --skip-version-check
}
