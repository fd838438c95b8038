#!/bin/sh
# Checks the scripts: types, rules, and unit tests. Called by the Maven build.
set -eu
cd "$(dirname "$0")"
node_modules/.bin/tsc -p jsconfig.json
cd ..
frontend/node_modules/.bin/eslint -c frontend/eslint.config.mjs src/main/resources/static/js
node --test frontend/test/*.test.mjs
