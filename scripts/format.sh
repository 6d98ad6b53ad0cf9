# How code, comments and docs are laid out: by tools, at 120 columns.

# formatters CHECK : runs each of them; with "check" they only name what they would change.
formatters() {
  local code=format front=--write comments=() files docs
  [ "$1" != check ] || { code=check; front=--check; comments=(--check); }
  cd "$ROOT"
  mapfile -t files < <(git ls-files -co --exclude-standard -- '*.cs' '*.ts' '*.svelte' '*.sh' '*.mjs' lantern ':!*/Migrations/*' ':!web/src/lib/api/schema.ts')
  node scripts/comments.mjs "${comments[@]}" "${files[@]}" || return 1
  dotnet csharpier $code . || return 1
  mapfile -t docs < <(git ls-files -co --exclude-standard -- '*.md' '*.mjs' ':!web')
  (cd web && npx prettier $front --log-level warn --config .prettierrc.json . "${docs[@]/#/../}") || return 1
  (cd web && if [ "$1" = check ]; then npx eslint --max-warnings 0 .; else npx eslint --fix .; fi)
}

# ./lantern format : lays everything out anew.
lantern_format() {
  need_toolchains
  web_packages
  quietly "Fetching the tools" dotnet tool restore
  formatters write
}
