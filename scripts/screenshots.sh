#!/usr/bin/env bash
# Takes the pictures of docs/screenshots anew: each command on the demo site, in a terminal window under Xvfb, and one
# page of the demo and the report of a browser proof in Chromium. Needs xvfb, xterm, imagemagick and chromium.
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
out="$root/docs/screenshots"
work=$(mktemp -d)
trap 'rm -rf "$work"; kill $xvfb 2>/dev/null || true' EXIT
mkdir -p "$out" "$work/bin"
printf '#!/bin/sh\nexec node %s/dist/cli/main.js "$@"\n' "$root" > "$work/bin/acervus"
chmod +x "$work/bin/acervus"
export PATH="$work/bin:$PATH"
cp -r "$root/demo/site" "$work/skerrin-line"
cp -r "$root/demo/site" "$work/before"
cd "$work"

display=:97
Xvfb $display -screen 0 1280x800x24 >/dev/null 2>&1 &
xvfb=$!
sleep 1

# A wide terminal; accounts use up to 140 columns of it.
# shot NAME 'COMMAND' ['SHOWN']: runs the command at a prompt and keeps what the terminal shows.
shot() {
  rm -f "$work/done"
  printf '%s\n' "export COLORTERM=truecolor FORCE_COLOR=1 COLUMNS=140; printf '\\033[1m\$\\033[0m %s\\n\\n' \"${3:-$2}\"; $2; touch $work/done; sleep 60" > "$work/run.sh"
  DISPLAY=$display xterm -fa 'DejaVu Sans Mono' -fs 10 -geometry 157x46+0+0 -b 12 -bg '#fbfaf7' -fg '#2b2f33' -xrm 'XTerm*boldColors: false' \
    -xrm 'XTerm*color6: #0b7285' -xrm 'XTerm*color3: #b06c00' -xrm 'XTerm*color1: #b3261e' \
    -e bash "$work/run.sh" &
  local pid=$!
  until [ -e "$work/done" ]; do sleep 0.2; done
  sleep 1
  DISPLAY=$display import -window root "$out/$1.png"
  kill $pid 2>/dev/null || true
  wait $pid 2>/dev/null || true
}

shot survey 'acervus survey skerrin-line | head -42'
shot draft 'acervus draft skerrin-line'
cp -r "$root/demo/site" "$work/line"
acervus draft line >/dev/null
# Answers by themselves: the third style, with the list of answers open.
printf '%s\n' 'import os,pty,sys,time' 'pid,fd=pty.fork()' 'if pid==0: os.execvp("acervus",["acervus","draft","--review","line"])' 'import threading' 'def answer():' '  time.sleep(1.5); os.write(fd,b"\r"); time.sleep(0.8); os.write(fd,b"\x1b[B\x1b[B\r")' 'threading.Thread(target=answer,daemon=True).start()' 'end=time.time()+5' 'import select' 'while time.time()<end:' '  if select.select([fd],[],[],0.2)[0]: sys.stdout.buffer.write(os.read(fd,4096)); sys.stdout.flush()' > "$work/review.py"
shot review 'python3 review.py' 'acervus draft --review line'
shot adopt 'acervus adopt skerrin-line'
cp -r "$root/demo/eleventy" notices && ln -s "$root/node_modules" notices/node_modules
shot built 'acervus survey notices | tail -18; echo; acervus draft notices' 'acervus survey notices; acervus draft notices'
cp -r skerrin-line broken
printf '\n.kw-main .table-cell-navy {\n  color: #8a3b12;\n}\n' >> broken/theme/skerrin.css
shot prove-difference 'acervus prove broken --against skerrin-line | head -42'
acervus prove broken --against skerrin-line --browser --pages 'fares/*' >/dev/null || true
acervus undo skerrin-line >/dev/null
cp -r "$root/demo/site" "$work/line2"
cd "$work/line2"
shot explain "acervus explain crossings/tarbek-ulvay.html '#el-tarb1'"
shot reach "acervus reach '#1f3a56'"
shot restyle "acervus restyle '.kw-main h2' 'color: #2e6b5e' 'margin-top:'"
acervus undo >/dev/null
acervus override '.kw-badge' 'padding: 2px 10px' >/dev/null
acervus override '.kw-table th' 'border-color: #1f3a56' >/dev/null
acervus override h2 'font-size: 1.6em' >/dev/null
shot override "acervus override '.kw-crumbs a' 'color: #1f3a56' --within body.sk-fares"
shot outlast 'acervus outlast --platform platform/3.1=platform/4.0'
shot family 'acervus family --find; cat theme/harbours.family.yaml' 'acervus family --find; cat theme/harbours.family.yaml'
cd "$work"
cp -r "$root/demo/site" held
acervus hold held >/dev/null
sed -i 's#<h1>Fares</h1>#<h1 style="margin-bottom: 4px">Fares</h1>\n<p class="sk-rigth" style="text-align: right">Prices of this summer</p>#' held/fares/index.html
shot hold 'acervus hold held'
shot values 'acervus values held | head -16; echo; acervus values held --pairs | head -14; echo; acervus values held --pairs | tail -6' 'acervus values held; acervus values held --pairs'
cp -r "$root/demo/site" sampled
acervus draft sampled >/dev/null
acervus adopt sampled --report >/dev/null
chromium --headless --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,800 --screenshot="$out/report.png" "file://$work/sampled/.acervus/report/index.html" >/dev/null 2>&1
mv sampled skerrin
acervus sampler skerrin >/dev/null
# Chromium's own switch takes no page that is scrolled.
(cd "$root" && node --input-type=module -e '
  import { chromium } from "playwright-core";
  const [page, picture] = process.argv.slice(1);
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
  const tab = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await tab.goto(page);
  await tab.waitForTimeout(1000);
  await tab.screenshot({ path: picture });
  await browser.close();
' "file://$work/skerrin/.acervus/sampler/index.html#style-.sk-lead" "$out/sampler.png")
node "$root/demo/platform-server/server.mjs" 8700 >/dev/null &
platform=$!
sleep 1
boxes="--own '#kw-own-css' --own-page style.kw-page-css"
shot visit "acervus visit http://127.0.0.1:8700/ live $boxes; echo; acervus explain http://127.0.0.1:8700/fares/ '.kw-table td' live --property padding | head -14"
acervus override '.kw-table td' 'padding: 10px 14px' live >/dev/null
acervus draft live >/dev/null
printf '%s\n' 'for pair in kw-own-css.css=site-css kw-page-css/fares/index.css=page-css/fares/; do' '  curl -s -X PUT --data-binary "@live/own/${pair%%=*}" "http://127.0.0.1:8700/editor/${pair##*=}"' 'done' > paste.sh
acervus adopt live >/dev/null
shot prove-live 'acervus prove --live live | head -22; sh paste.sh; echo; acervus prove --live live' 'acervus prove --live live; sh paste.sh; acervus prove --live live'
kill $platform
chromium --headless --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,800 --screenshot="$out/browser-report.png" "file://$work/broken/.acervus/browser/index.html" >/dev/null 2>&1
