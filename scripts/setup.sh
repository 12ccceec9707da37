# What the commands stand on: Python packages, Debian packages, the built client.
# Every part keeps a stamp of what it was made from, so that a second start does nothing.

STATE="$PWD/.anvil"
VENV="$STATE/venv"
PY="$VENV/bin/python"
mkdir -p "$STATE"

say() { printf '%s\n' "$*"; }

# step LABEL COMMAND…: quiet when it works, the whole output when it does not.
step() {
  local label="$1"; shift
  local log="$STATE/step.log"
  printf '  %s … ' "$label"
  if "$@" >"$log" 2>&1; then echo "done"; else echo "FAILED"; cat "$log"; return 1; fi
}

fingerprint() { cat "$@" | sha256sum | cut -c1-16; }
# Of everything but tests, which are in no build.
tree_fingerprint() { find "$@" -type f ! -path '*/test/*' ! -name '*.test.ts*' -print0 | sort -z | xargs -0 cat | sha256sum | cut -c1-16; }

# made NAME FINGERPRINT: true where NAME was made from exactly this.
made() { [ "$(cat "$STATE/$1.stamp" 2>/dev/null || true)" = "$2" ]; }
mark_made() { printf '%s' "$2" >"$STATE/$1.stamp"; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else
    say "This needs root, and there is no sudo here. As root, run: $*"; return 1; fi
}

# need_debian PROGRAM_OR_TEST PACKAGE…: installs the packages when the test fails.
need_debian() {
  local test="$1"; shift
  if eval "$test" >/dev/null 2>&1; then return; fi
  command -v apt-get >/dev/null || { say "Missing: $*. Install it with this system's package manager."; return 1; }
  say "Installing Debian packages: $*"
  step "package list" as_root apt-get update -qq
  step "$*" as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "$@"
}

make_venv() { [ -x "$PY" ] || python3 -m venv "$VENV"; }

need_python() {
  local print; print="$(fingerprint requirements.txt)"
  if made python "$print"; then return; fi
  need_debian "python3 -c 'import ensurepip, venv'" python3 python3-venv
  python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' ||
    { say "Young Anvil needs Python 3.11 or newer; this is $(python3 --version)."; return 1; }
  say "Setting up Python packages (first time: about a minute)"
  step "virtual environment" make_venv
  step "requirements.txt" "$VENV/bin/pip" install -q --disable-pip-version-check --require-hashes -r requirements.txt
  mark_made python "$print"
}

need_python_dev() {
  need_python
  local print; print="$(fingerprint requirements.txt requirements-dev.txt)"
  if made python-dev "$print"; then return; fi
  step "requirements-dev.txt" "$VENV/bin/pip" install -q --disable-pip-version-check --require-hashes -r requirements-dev.txt
  mark_made python-dev "$print"
}

need_pdf_libraries() {
  need_debian "[ \$(ldconfig -p | grep -cE 'libpangoft2-1.0.so.0|libharfbuzz-subset.so.0') -ge 2 ]" \
    libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0
}

# The headless build draws no window frame: the same pages for half the work.
need_chromium() {
  need_debian "command -v chromium-headless-shell || ! apt-cache show chromium-headless-shell" chromium-headless-shell
  need_debian "command -v chromium-headless-shell || command -v chromium" chromium
}
need_pdf_reader() { need_debian "command -v pdftotext" poppler-utils; }

need_node_modules() {
  if ! command -v npm >/dev/null; then need_debian false nodejs npm; fi
  node -e 'const [a, b] = process.versions.node.split("."); process.exit(a > 20 || (a == 20 && b >= 19) ? 0 : 1)' ||
    { say "The client is built with Node.js 20.19 or newer; this is $(node --version)."; return 1; }
  local print; print="$(fingerprint web/package-lock.json)"
  if made node "$print" && [ -d web/node_modules ]; then return; fi
  say "Setting up the client's packages (first time: about a minute)"
  # Not `npm ci`: it refuses a lock that lacks optional builds for systems a registry mirror does not carry.
  # With a lock file, `npm install --no-save` installs exactly what is locked and writes nothing.
  step "packages" npm --prefix web install --no-save --no-fund --no-audit
  mark_made node "$print"
}

need_web_build() {
  local print; print="$(tree_fingerprint web/src web/index.html web/vite.config.ts web/package-lock.json pyproject.toml)"
  if made web "$print" && [ -d web/dist ]; then return; fi
  need_node_modules
  step "client" npm --prefix web run build
  step "static files" "$PY" manage.py collectstatic --noinput --clear
  mark_made web "$print"
}

# Every route a job can begin with is composed once, so that a slip in one shows here and not at somebody's machine.
check_routes_if_changed() {
  local made_of; made_of="$(find millwright -name '*.py' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-16)"
  made routes "$made_of" && return
  "$PY" -c "from millwright.plan.compose import every_route; every_route()"
  mark_made routes "$made_of"
}

migrate_if_changed() {
  local print; print="$(cat server/*/migrations/*.py | sha256sum | cut -c1-16)$(database_fingerprint)"
  if made migrations "$print"; then return; fi
  "$PY" manage.py migrate --noinput
  mark_made migrations "$print"
}

# A plant's own database never gets the demo, and its people with it, by itself.
wants_demo() { [ -n "${CLUSTER:-}" ] || [ "${1:-}" = --demo ]; }

# A database that holds a site already is left alone.
load_demo_once() {
  local print; print="$(database_fingerprint)"
  if made demo "$print"; then return; fi
  "$PY" manage.py load_demo --first-start-only ${CLUSTER:+--short-password}
  mark_made demo "$print"
}

# answers PORT: true once something listens there.
answers() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  python3 - "$1" <<'PY'
import socket, sys
for port in [int(sys.argv[1]), 0]:
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind(("127.0.0.1", port))
        except OSError:
            continue
        print(s.getsockname()[1])
        break
PY
}
