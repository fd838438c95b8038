#!/bin/sh
# Puts styles, fonts, icons and libraries into the folder of static files. Called by the Maven build.
set -eu
target=$1
cd "$(dirname "$0")"

# npm ci is most of the time: skipped while what is installed is what the lock file says
stamp=node_modules/.installed-lock
if ! cmp -s package-lock.json "$stamp"; then
  npm ci --no-audit --no-fund --loglevel=error
  cp package-lock.json "$stamp"
fi

mkdir -p "$target/vendor/files" "$target/css"

# modules that our own import: beside them in the sources too, so that editors, checks and tests find them, with their types
modules=../src/main/resources/static/js/vendor
for module in lit-html/lit-html lit-html/directive lit-html/directive-helpers lit-html/directives/live lit-html/directives/repeat idb/build/index; do
  mkdir -p "$modules/$(dirname "$module")"
  # as old as they are, so that no build follows from them
  cp -p "node_modules/$module.js" "$modules/$module.js"
  [ -f "$modules/$module.d.ts" ] || echo "export * from '$module.js';" > "$modules/$module.d.ts"
done

cp node_modules/htmx.org/dist/htmx.min.js "$target/vendor/htmx.js"
cp node_modules/tus-js-client/dist/tus.min.js "$target/vendor/tus.js"
cp node_modules/@alpinejs/csp/dist/cdn.min.js "$target/vendor/alpine.js"
for weight in 400 700; do
  cp "node_modules/@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-$weight-normal.woff2" "$target/vendor/files/"
done
cp node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2 "$target/vendor/files/"
node sprite.mjs > "$target/vendor/icons.svg"
node_modules/.bin/tailwindcss --input styles.css --output "$target/css/mellow.css" --minify
