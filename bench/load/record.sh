#!/usr/bin/env bash
# Pages of a large record: 504 pupils, a million entries (the invented pupils, again and again, over years). Needs sqlite3 and curl.
#   bench/load/record.sh DIR [REQUESTS]     DIR is made new; every page is asked for so often, and then each so often again and measured,
#                                           one request after the other: how quick it is in use, not after a start
set -euo pipefail
dir=${1:?a folder to make the record in, whole path} requests=${2:-100} port=5997
cd "$(dirname "$0")/../.."
./start --build
cd src/Bocca.Web
[ ! -e "$dir" ] || { echo "$dir is there already." >&2; exit 1; }
serve() {
  DOTNET_gcServer=0 dotnet ../../artifacts/app/Bocca.Web.dll --contentRoot "$PWD" --urls "http://localhost:$port" --data "$dir" >"$dir.log" 2>&1 &
  app=$!
  for _ in $(seq 300); do curl -sf -o "$dir.page" "http://localhost:$port/" && return; sleep 0.1; done
  echo "The application does not answer; see $dir.log." >&2; exit 1
}
halt() { kill "$app" && wait "$app" 2>/dev/null || true; }
trap halt EXIT

serve
while grep -q data-filling "$dir.page"; do sleep 0.5; curl -s -o "$dir.page" "http://localhost:$port/"; done
halt
columns() { sqlite3 "$dir/bocca.db" "SELECT group_concat(name) FROM pragma_table_info('$1') WHERE name NOT IN ($2)"; }
pupil=$(columns Pupils "'Id','Name'") entry=$(columns Entries "'Id','PupilId','At','DoneAt','DueAt','Key'")
figure=$(columns Figures "'EntryId','PupilId','At'")
# A copy of everybody is j, a fortnight of the past is k; what is due and what can be opened stays in the newest.
sqlite3 "$dir/bocca.db" <<SQL
PRAGMA journal_mode=WAL; PRAGMA synchronous=OFF; PRAGMA foreign_keys=OFF;
CREATE TEMP TABLE Copies AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 72 * 137 - 1) SELECT i, i % 72 AS j, i / 72 AS k FROM n;
CREATE TEMP TABLE E AS SELECT * FROM Entries; CREATE TEMP TABLE F AS SELECT * FROM Figures; CREATE TEMP TABLE B AS SELECT * FROM Payloads;
CREATE TEMP TABLE P AS SELECT * FROM Pupils;
BEGIN;
INSERT INTO Pupils (Id, Name, $pupil) SELECT Id + 7 * j, Name || ' ' || j, $pupil FROM P, Copies WHERE k = 0;
INSERT INTO Entries (Id, PupilId, At, DoneAt, DueAt, Key, $entry)
  SELECT Id + 1000 * i, PupilId + 7 * j, At - 1209600000 * k, CASE WHEN k > 0 THEN At ELSE DoneAt END, CASE WHEN k > 0 THEN NULL ELSE DueAt END, NULL, $entry
  FROM E, Copies;
INSERT INTO Figures (EntryId, PupilId, At, $figure) SELECT EntryId + 1000 * i, PupilId + 7 * j, At - 1209600000 * k, $figure FROM F, Copies;
INSERT INTO Payloads SELECT EntryId + 1000 * i, Version, Body FROM B, Copies WHERE k = 0 OR length(Body) < 1000;
COMMIT;
ANALYZE;
SELECT (SELECT count(*) FROM Pupils) || ' pupils, ' || (SELECT count(*) FROM Entries) || ' entries, ' || (SELECT count(*) FROM Figures) || ' figures';
SQL
serve
echo "| page | median ms | 95th ms | kB |"
echo "| --- | --- | --- | --- |"
pages=(/ /record/5 "/record/5?stop=buzz" /buzz/5 /tone/5 "/notes/5?note=C4" /notes/5/hand /slurs/5 /slurs/5/map /breath/5 /set-up/5
  /practice/5 /practice/5/week /practice/5/message /practice/class /notes/class /slurs/class /ear/4 /ear/count/4 /ear/tell/4
  /pieces/5 /pieces/6/5 /pieces/6/5/sheet)
for _ in $(seq "$requests"); do for page in "${pages[@]}"; do curl -sS --fail -o "$dir.page" "http://localhost:$port$page"; done; done
for page in "${pages[@]}"; do
  for _ in $(seq "$requests"); do curl -s -o "$dir.page" -w '%{time_starttransfer}\n' "http://localhost:$port$page"; done |
    sort -n | awk -v page="$page" -v size="$(wc -c <"$dir.page")" \
      '{ t[NR] = 1000 * $1 } END { printf "| %s | %.1f | %.1f | %d |\n", page, t[int((NR + 1) / 2)], t[int(0.95 * NR + 0.5)], size / 1000 }'
done
echo "$(awk '/VmRSS/ { printf "%d MB of memory", $2 / 1024 }' "/proc/$app/status"), $(du -m "$dir/bocca.db" | cut -f1) MB on disk"
