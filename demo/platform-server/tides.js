// Builds the table of tides in the page.
const place = document.querySelector('.kw-live');
const table = document.createElement('ul');
table.className = 'kw-tides';
for (const row of JSON.parse(place.dataset.rows)) {
  const line = document.createElement('li');
  line.textContent = row;
  table.append(line);
}
place.append(table);
const sheet = new CSSStyleSheet();
sheet.replaceSync('.kw-tides li { border-bottom: 1px solid #c9d2d8; }');
document.adoptedStyleSheets.push(sheet);
