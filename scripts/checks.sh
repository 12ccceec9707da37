# What is checked without running a test, several at a time, each with how long it took.

in_web() { (cd web && "./node_modules/.bin/$1" "${@:2}"); }

check_ruff() { "$VENV/bin/ruff" check . && "$VENV/bin/ruff" format --check .; }
check_mypy() { "$VENV/bin/mypy"; }
check_import_rules() { "$VENV/bin/lint-imports"; }
check_biome() { in_web biome check .; }
check_tsc() { in_web tsc --noEmit --incremental --tsBuildInfoFile ../.anvil/tsc.json; }
check_client_directions() { in_web depcruise src --config .dependency-cruiser.cjs; }
check_client_leftovers() { in_web knip; }
check_migrations() { "$PY" -W ignore::RuntimeWarning manage.py makemigrations --check --dry-run; } # it may do without a database

# What the server says of its API is what is committed and what the client was typed by.
check_api_drift() {
  local fresh; fresh="$(mktemp -d)"
  "$PY" manage.py write_openapi "$fresh/openapi.json" --types "$fresh/types.json"
  in_web openapi-typescript "$fresh/types.json" --default-non-nullable=false -o "$fresh/schema.d.ts"
  diff -q "$fresh/openapi.json" docs/openapi.json && diff -q "$fresh/schema.d.ts" web/src/api/schema.d.ts ||
    { echo "The API and its committed description differ. Run ./anvil types and commit."; return 1; }
}

# The longest first.
CHECKS=(mypy tsc api_drift client_leftovers client_directions import_rules migrations biome ruff)

one_check() {
  local name="$1" log="$STATE/checks/$1" began="$EPOCHREALTIME" word=done
  if ! "check_$name" >"$log.log" 2>&1 </dev/null; then word=FAILED; touch "$log.failed"; fi
  printf '  %5.1f s  %-18s %s\n' "$(bc_less "$began" "$EPOCHREALTIME")" "${name//_/ }" "$word"
}

# Seconds between two moments, without a calculator: microseconds as whole numbers.
bc_less() { local us=$((${2/./} - ${1/./})); printf '%d.%06d' $((us / 1000000)) $((us % 1000000)); }

# together NAME…: the checks of these names, as many at a time as there are cores; what failed is printed whole.
together() {
  rm -rf "$STATE/checks"; mkdir -p "$STATE/checks"
  local name
  for name in "$@"; do
    while [ "$(jobs -rp | wc -l)" -ge "$(nproc)" ]; do wait -n || true; done
    one_check "$name" &
  done
  wait
  local failed=0
  for name in "$@"; do
    [ -e "$STATE/checks/$name.failed" ] || continue
    failed=1; say "--- ${name//_/ }"; cat "$STATE/checks/$name.log"
  done
  return "$failed"
}
