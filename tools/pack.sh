# Part of ./lane: packs the application with a Java runtime of its own, for machines that have none. Sourced, not run.
# shellcheck shell=bash
# shellcheck disable=SC2154  # app and here are the launcher's.

# What makes and what is in the packages: icon, list of libraries with their licences.
pack_parts() {
  local parts=$1
  mkdir -p "$parts"
  "$JAVA_HOME/bin/java" -Djava.awt.headless=true -cp "$app/lib/*" "$here/tools/IconFiles.java" "$parts" || fail "the icon could not be made."
  run_maven -Dlane.quick org.cyclonedx:cyclonedx-maven-plugin:2.9.1:makeAggregateBom -pl desk -am -DoutputDirectory="$parts" -DoutputFormat=json \
    -DoutputName=sbom.cdx -DincludeTestScope=false -DincludeProvidedScope=false >&2 || fail "the list of libraries could not be made."
  "$JAVA_HOME/bin/java" -cp "$app/lib/*" "$here/tools/Licences.java" "$parts/sbom.cdx.json" "$parts/licences" "$app/lib" "$app/fx" ||
    fail "the licences could not be gathered."
  cp "$here/LICENSE" "$parts/licences/LICENSE"
}

# Options of the program within the image.
pack_options() {
  printf '%s\n' -XX:+UseParallelGC -XX:MaxRAMPercentage=75 -Xlog:disable -Xlog:all=error:stderr \
    --enable-native-access=ALL-UNNAMED,javafx.graphics -Djdk.reflect.useNativeAccessorOnly=true --sun-misc-unsafe-memory-access=allow \
    -Djava.awt.headless=true
}

# The window's launcher is the packer's, that of the verbs a script beside it.
pack_image() {
  local image=$1 parts=$2 version=$3 options=() each
  while IFS= read -r each; do options+=(--java-options "$each"); done < <(pack_options)
  # The runtime keeps its own java: the verbs start with it, and it makes the start-up caches.
  "$JAVA_HOME/bin/jpackage" --type app-image --name crosscheck-lane --app-version "$version" --dest "$image" --icon "$parts/lane.png" \
    --vendor "The Crosscheck Lane developers" --copyright "2026, MIT licence" --description "Simulation results against theory, measurement and other meshes" \
    --input "$app/lib" --main-jar "desk-$version.jar" --main-class lane.desk.app.Main \
    --module-path "$app/fx" --add-modules java.base,java.desktop,java.logging,java.naming,java.xml,java.xml.crypto,java.management,jdk.unsupported,jdk.zipfs,jdk.incubator.vector,javafx.controls \
    --jlink-options "--strip-debug --no-man-pages --no-header-files" \
    "${options[@]}" >&2 || fail "the image could not be made; the lines above say why."
  local inside=$image/crosscheck-lane/lib/app
  mkdir -p "$inside/legal"
  cp -R "$parts/licences/." "$parts/sbom.cdx.json" "$inside/legal/"
  cp "$here/docs/study.schema.json" "$inside/"
  pack_path "$inside" | sed "s|$inside|.|g" > "$inside/classpath"
  {
    echo '#!/bin/sh'
    echo '# The verbs of Crosscheck Lane: lane help lists them.'
    echo 'self=$0'
    echo 'while [ -h "$self" ]; do link=$(readlink "$self"); case $link in /*) self=$link ;; *) self=$(dirname "$self")/$link ;; esac; done'
    echo 'app=$(cd "$(dirname "$self")/../lib/app" && pwd)'
    echo 'cache=; [ -f "$app/cli.aot" ] && cache="-XX:AOTCache=$app/cli.aot"'
    echo 'path=$(sed "s|\./|$app/|g" "$app/classpath")'
    echo 'exec "$app/../runtime/bin/java" '"$(pack_options | tr '\n' ' ')${late_compiler[*]} "'${cache:+"$cache"} -Dlane.called=lane -cp "$path" lane.desk.app.Main "$@"'
  } > "$image/crosscheck-lane/bin/lane"
  chmod +x "$image/crosscheck-lane/bin/lane"
  # The caches know files by their time, and so a package must have them all at the same.
  find "$image" -exec env TZ=UTC0 touch -h -t 202601010000 {} +
}

# The same start-up caches as ./lane has, made by the image's own runtime on the demo.
pack_caches() {
  local image=$1/crosscheck-lane own=$1/training inside=$1/crosscheck-lane/lib/app options=() each
  while IFS= read -r each; do options+=("$each"); done < <(pack_options)
  mkdir -p "$own"
  (cd "$own" && JAVA_TOOL_OPTIONS="-XX:AOTCacheOutput=$own/lane.aot -Dglass.platform=Headless -Dprism.order=sw -Dlane.exit=true -Dlane.data=$own/user" \
    limit 400 "$image/bin/crosscheck-lane" shots "$own/study" "$own/pictures" ledger) > "$own/lane.log" 2>&1
  if [ -f "$own/study/coarse.vtu" ]; then
    (cd "$own" && "$image/lib/runtime/bin/java" "${options[@]}" -XX:AOTCacheOutput="$own/cli.aot" -cp "$(pack_path "$inside")" lane.cli.Rehearsal "$own/study" "$own") > "$own/cli.log" 2>&1
  fi
  # The launcher is told of a cache only when there is one: a missing one would be an error to it.
  if pack_cache "$own/lane.aot" "$inside"; then
    awk -v line="java-options=-XX:AOTCache=\$APPDIR/lane.aot" '{print} /^\[JavaOptions\]/{print line}' "$inside/crosscheck-lane.cfg" > "$own/cfg" &&
      cat "$own/cfg" > "$inside/crosscheck-lane.cfg"
  fi
  pack_cache "$own/cli.aot" "$inside"
  rm -rf "$own"
}

pack_cache() {
  local made=$1 inside=$2
  if [ ! -f "$made" ]; then
    echo "lane: no start-up cache $(basename "$made") could be made; starting works, only slower" >&2
    return 1
  fi
  mv "$made" "$inside/"
}

# The class path as the launcher has it.
pack_path() { sed -n "s|^app.classpath=\$APPDIR|$1|p" "$1/crosscheck-lane.cfg" | tr '\n' ':' | sed 's/:$//'; }

pack_deb() {
  local image=$1 parts=$2 version=$3
  if ! command -v dpkg-deb >/dev/null 2>&1 || ! command -v fakeroot >/dev/null 2>&1; then
    echo "lane: no .deb was made, since dpkg-deb or fakeroot is missing" >&2
    return
  fi
  printf 'extension=lane.json\nmime-type=application/vnd.crosscheck-lane.study+json\ndescription=Crosscheck Lane study\nicon=%s\n' "$parts/lane.png" > "$parts/study.properties"
  mkdir -p "$parts/resources"
  # The packer's own entry would open the window without the file that was clicked.
  cat > "$parts/resources/crosscheck-lane.desktop" <<'ENTRY'
[Desktop Entry]
Name=Crosscheck Lane
Comment=APPLICATION_DESCRIPTION
Exec=APPLICATION_LAUNCHER %F
Icon=APPLICATION_ICON
Terminal=false
Type=Application
Categories=DEPLOY_BUNDLE_CATEGORY
DESKTOP_MIMES
ENTRY
  SOURCE_DATE_EPOCH=1767225600 "$JAVA_HOME/bin/jpackage" --type deb --name crosscheck-lane --app-version "$version" --dest "$here/build" --app-image "$image/crosscheck-lane" \
    --resource-dir "$parts/resources" --icon "$parts/lane.png" --file-associations "$parts/study.properties" --linux-shortcut --linux-app-category science \
    --linux-menu-group "Science;Engineering;" --linux-deb-maintainer "nobody@localhost" --license-file "$here/LICENSE" --vendor "The Crosscheck Lane developers" \
    --description "Simulation results against theory, measurement and other meshes" >&2 || fail "the .deb could not be made; the lines above say why."
  echo "$here/build/crosscheck-lane_${version}_$(dpkg --print-architecture).deb"
}

pack() {
  local image="$here/build/image" parts="$here/build/parts" version
  version=$(stated_version)
  rm -rf "$image" "$parts"
  pack_parts "$parts"
  pack_image "$image" "$parts" "$version"
  pack_caches "$image"
  tar -C "$image" -czf "$here/build/crosscheck-lane.tar.gz" crosscheck-lane || fail "the image could not be packed."
  echo "$here/build/crosscheck-lane.tar.gz"
  pack_deb "$image" "$parts" "$version"
}
