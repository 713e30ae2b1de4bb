#!/bin/sh
# Dumps of the shop by PostgreSQL's own tools.
#   sh backup.sh once      one dump now, into $BACKUPS
#   sh backup.sh nightly   one now and one every day, the last $KEEP kept
#   sh backup.sh restore FILE   puts a dump into the empty database of $DATABASE_URL
set -eu
: "${DATABASE_URL:?the database of the shop}"
backups=${BACKUPS:-backups}

once() {
  # Asked about by an `if` a shell goes on after what fails: each step says so itself.
  mkdir -p "$backups" || return 1
  file="$backups/shop-$(date -u +%Y-%m-%dT%H%M%SZ).dump"
  # Whole or not there: a dump that broke off has another name.
  pg_dump --format=custom --no-owner --file="$file.part" "$DATABASE_URL" || return 1
  pg_restore --list "$file.part" > /dev/null || return 1
  mv "$file.part" "$file" || return 1
  echo "$file"
}

case "${1:-}" in
  once) once ;;
  nightly)
    while :; do
      # One that fails is said, and tried again an hour later.
      if once; then
        ls -1t "$backups"/shop-*.dump | tail -n +"$((${KEEP:-14} + 1))" | xargs -r rm --
        sleep 86400
      else
        echo "no dump was made" >&2
        sleep 3600
      fi
    done
    ;;
  restore)
    file=${2:?the dump}
    pg_restore --no-owner --exit-on-error --single-transaction --dbname="$DATABASE_URL" "$file"
    ;;
  *)
    echo "once, nightly, or restore FILE" >&2
    exit 2
    ;;
esac
