# Finds a JDK of version 21 or newer: in JAVA_HOME, on the path, or where Debian and its kin put them.

jdk_version() {
  "$1/bin/java" -XshowSettings:properties -version 2>&1 | sed -n 's/^ *java\.specification\.version = //p' | sed 's/^1\.//'
}

find_jdk() {
  local candidate version
  local on_path
  on_path=$(command -v javac 2>/dev/null && true)
  [ -n "$on_path" ] && on_path=$(dirname "$(dirname "$(readlink -f "$on_path")")")
  for candidate in "${JAVA_HOME:-}" "$on_path" /usr/lib/jvm/*; do
    [ -n "$candidate" ] && [ -x "$candidate/bin/javac" ] && [ -x "$candidate/bin/java" ] || continue
    version=$(jdk_version "$candidate")
    if [ "${version:-0}" -ge 21 ] 2>/dev/null; then
      echo "$candidate"
      return 0
    fi
  done
  echo "No JDK of version 21 or newer was found. Install one (on Debian 13: apt-get install openjdk-21-jdk-headless) or set JAVA_HOME." >&2
  return 1
}

# How the service is run; a cache of its classes holds for these alone.
service_flags=(-XX:+UseParallelGC -XX:+ExitOnOutOfMemoryError --enable-native-access=ALL-UNNAMED)

# What a cache of the service's classes is made for: a JDK, the flags, and the very files. Arguments: the JDK, the project.
cache_fits() {
  echo "$1 $(jdk_version "$1") ${service_flags[*]}"
  stat -c '%n %s %Y' "$2"/service/target/youngtally-service-*.jar "$2"/service/target/lib/*.jar | cksum
}
