# What tests took, from the reports that Surefire writes. Sourced, never run.

# print_durations LOG: each module's seconds as Maven told them in LOG, and the slowest twenty tests
print_durations() {
  echo
  echo "module                      took"
  sed -nE 's/^\[INFO\] Mellow Class ([a-z ]+) \.+ (SUCCESS|FAILURE) \[ *([0-9:.]+ (s|min))\].*/\1|\3/p' "$1" | awk -F'|' '{ printf "%-20s %11s\n", $1, $2 }'
  echo
  echo "seconds  the slowest twenty"
  find . -path '*/target/surefire-reports/TEST-*.xml' -newer "$1.began" -exec grep -hoE '<testcase name="[^"]*" classname="[^"]*" time="[0-9.,]+"' {} + \
    | sed -E 's/<testcase name="([^"]*)" classname="([^"]*\.)?([^".]*)" time="([0-9.,]+)"/\4\t\3 \1/; s/,//' | sort -rn | awk -F'\t' 'NR <= 20 { printf "%7.1f  %s\n", $1, $2 }'
}
