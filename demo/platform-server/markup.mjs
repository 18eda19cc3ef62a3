// How the platform writes a page: an id and a made-up class on each block, other names in another version.

import { createHash } from 'node:crypto';

export function pageOf({ site, version }, path) {
  const page = site.pages[path];
  const title = path === '/' ? site.name : `${page.title} | ${site.name}`;
  const nav = site.nav.map(
    (to) => `      <li${to === path ? ' class="kw-here"' : ''}><a href="${to}">${escape(site.pages[to].title)}</a></li>`,
  );
  const pageCss = page.css === undefined ? '' : `\n  <style class="kw-page-css">\n${page.css}</style>`;
  // The box of a page stands before the kit's last sheet, that of the site behind it: nobody remembers why.
  return `<!DOCTYPE html>
<html lang="en">
<head>
  <meta charset="utf-8">
  <title>${escape(title)}</title>
  <link rel="stylesheet" href="/kit/kelpwork.css?v=${version}">${pageCss}
  <link rel="stylesheet" href="/kit/late.css">
  <style id="kw-own-css">
${site.css}</style>
</head>
<body class="kw-v${version.replace('.', '-')}">
<div class="kw-page">
  <div id="kw-top">
    <a class="kw-brand" href="/">${escape(site.name)}</a>
    <ul class="kw-nav">
${nav.join('\n')}
    </ul>
  </div>
  <div class="kw-crumbs"><a href="/">Home</a>${escape(page.title)}</div>
  <div class="kw-body">
    <div class="kw-main">
${page.blocks.map((block) => blockOf(block, version)).join('\n')}
    </div>
  </div>
  <p class="kw-foot"><a href="/harbours/holm">Harbours</a> ${linksOf(site, path)}</p>
</div>
</body>
</html>
`;
}

/** Pages link on in circles. */
function linksOf({ pages }, path) {
  const all = Object.keys(pages);
  const at = all.indexOf(path);
  return [1, 2, 5]
    .map((step) => all[(at + step) % all.length])
    .map((to) => `<a href="${to}">${escape(pages[to].title)}</a>`)
    .join(' ');
}

function blockOf(block, version) {
  const madeUp = `kb-${createHash('sha256').update(`${block.id} ${version}`).digest('hex').slice(0, 7)}`;
  const badge = version.startsWith('4') ? 'kw-tag' : 'kw-badge';
  const own = block.class ? ` ${escape(block.class)}` : '';
  const style = block.style ? ` style="${escape(block.style)}"` : '';
  const open = (name, kind, more = '') =>
    `      <${name} id="${block.id}" class="${kind} ${madeUp}${own}"${style}${more}>`;
  switch (block.kind) {
    case 'heading':
      return `${open('h1', 'kw-head')}${escape(block.text)}</h1>`;
    case 'text':
      return `${open('p', 'kw-text')}${escape(block.text)}</p>`;
    case 'notice':
      return `${open('div', 'kw-notice')}<span class="${badge}">Notice</span> ${escape(block.text)}</div>`;
    case 'button':
      return `${open('a', 'kw-button', ` href="${block.to}"`)}${escape(block.text)}</a>`;
    case 'list':
      return `${open('ul', 'kw-list')}\n${block.items.map((one) => `        <li>${escape(one)}</li>`).join('\n')}\n      </ul>`;
    case 'script':
      return `${open('div', 'kw-live', ` data-rows="${escape(JSON.stringify(block.rows))}"`)}</div>\n      <script src="/kit/tides.js"></script>`;
    default: {
      const cells = (row, name) => row.map((one) => `<${name}>${escape(one)}</${name}>`).join('');
      return `${open('table', 'kw-table')}
        <caption>${escape(block.caption)}</caption>
        <tr>${cells(block.head, 'th')}</tr>
${block.rows.map((row) => `        <tr>${cells(row, 'td')}</tr>`).join('\n')}
      </table>`;
    }
  }
}

function escape(text) {
  return String(text).replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
}
