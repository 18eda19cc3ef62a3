import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  alternativesOf,
  enginePieces,
  maskPieces,
  outcomesOf,
  readEngineTag,
} from '../../../../src/core/read/templates/index.js';

const rolesOf = (text: string): string[] =>
  enginePieces(text).map(
    ({ start, end, role, prints }) => `${text.slice(start, end)} ${prints ? 'prints' : role}`,
  );

test('what opens a branch, goes on with the other one and ends it, in the words of each engine', () => {
  const branches = [
    '{% if berth %}a{% elif x %}b{% else %}c{% endif %}',
    '{% for one in crew %}a{% empty %}b{% endfor %}',
    '{{#if berth}}a{{else}}b{{/if}}',
    '{{^berth}}a{{/berth}}',
    '{{ if .Berth }}a{{ else }}b{{ end }}',
    '{{{ if berth }}}a{{{ else }}}b{{{ end }}}',
    '<% if berth %>a<% elsif x %>b<% else %>c<% end %>',
    '<% crew.each do |one| -%>a<% end -%>',
    '<% if (berth) { %>a<% } else if (x) { %>b<% } else { %>c<% } %>',
    '<% crew.forEach(function (one) { %>a<% }) %>',
    '<?php if ($berth): ?>a<?php else: ?>b<?php endif; ?>',
    '<?php foreach ($crew as $one) { ?>a<?php } ?>',
    '<c:if test="a > b">a</c:if>',
    '<quay:if condition="a" />a<quay:else />b<quay:endif />',
    '<t:foreach items="crew">a</t:foreach>',
    '$if(berth)$a$else$b$endif$',
    '$for(crew)$a$endfor$',
  ];
  for (const text of branches) {
    const roles = enginePieces(text).map(({ role }) => role);
    assert.equal(roles[0], 'open', text);
    assert.equal(roles.at(-1), 'close', text);
    for (const role of roles.slice(1, -1)) assert.equal(role, 'else', text);
  }
});

test('tags with a prefix are an engine’s where one of them is a branch; what it puts around something stays an element', () => {
  const text = '<p><c:if test="#{a}"><b/></c:if><c:out value="x"/><c:link>x</c:link><o:p>x</o:p></p>';
  assert.deepEqual(rolesOf(text), ['<c:if test="#{a}"> open', '</c:if> close', '<c:out value="x"/> prints']);
  assert.deepEqual(rolesOf('<o:p>x</o:p><svg:rect/>'), []);
  assert.deepEqual(
    rolesOf('<f:if a="b"><f:then>x</f:then><f:else>y</f:else></f:if>').map((one) => one.split(' ').at(-1)),
    [...['open', 'open', 'close', 'open', 'close', 'close']],
  );
});

test('what prints, and what does not', () => {
  assert.deepEqual(
    rolesOf('{{ fare }}{# no #}{% load x %}<%# no %><%= a %><%- b %><? $x = 1 ?>{{! no }}{{!-- }} --}}'),
    [
      '{{ fare }} prints',
      '{# no #} none',
      '{% load x %} none',
      '<%# no %> none',
      '<%= a %> prints',
      '<%- b %> prints',
      '<? $x = 1 ?> none',
      '{{! no }} none',
      '{{!-- }} --}} none',
    ],
  );
  assert.deepEqual(rolesOf("<?php echo '?>'; // it's ?>x"), ["<?php echo '?>'; // it's ?> prints"]);
  assert.deepEqual(rolesOf('<?xml version="1.0"?> { not } #{ this }'), []);
  assert.deepEqual(rolesOf('$if(late)$ $-- no\n$fare.of-day()$$endif$ 3$ and 4$'), [
    '$if(late)$ open',
    '$-- no none',
    '$fare.of-day()$ prints',
    '$endif$ close',
  ]);
  assert.deepEqual(rolesOf('a fare of $5$ or $name$'), [], 'no branch that ends');
});

test('an expression whose every outcome is written out can be those and nothing else', () => {
  const cases: [string, readonly string[] | undefined][] = [
    ["paid ? 'paid' : 'due'", ['paid', 'due']],
    ["a ? 'x' : b ? 'y' : ''", ['x', 'y', '']],
    ["(a.b(1, 'q') ? \"x\" : 'y')", ['x', 'y']],
    ["'odd' if loop.odd else 'even'", ['odd', 'even']],
    ["'late' if late", ['late', '']],
    ["'late' unless early", ['late', '']],
    ['echo $late ? "late" : "";', ['late', '']],
    ["'berth'", ['berth']],
    ['kind', undefined],
    ["'a-' + kind", undefined],
    ["x ? kind : 'due'", undefined],
    ['x ? "a#{b}" : "c"', undefined],
    ["cycle('odd', 'even')", undefined],
    ["f(x ? 'a' : 'b')", undefined],
    ["x?.y ?? 'a'", undefined],
  ];
  for (const [code, outcomes] of cases) assert.deepEqual(outcomesOf(code), outcomes, code);
});

test('the parser gets a text of the same length, without a word of the engine', () => {
  const text =
    '{% load x %}<p class="a {{ b }}" {% if c %}hidden{% endif %} data-{{ d }}="e">{{ f }}\n<!-- {{ g }} --><script>var h = "{{ i }}", j = {{ k }};{% if l %}{% endif %}</script>';
  const { text: masked, inTags, between, letter } = maskPieces(text, enginePieces(text));
  assert.equal(masked.length, text.length);
  assert.equal(masked.indexOf('\n'), text.indexOf('\n'));
  assert.doesNotMatch(masked, /[{}%]/);
  assert.deepEqual([inTags.length, between.length], [4, 2]);
  assert.match(masked, new RegExp(`^ +<p class="a ${letter}+" +hidden +data-${letter}+="e"> +\\n<!-- +-->`));
  assert.match(masked, new RegExp(`var h = "${letter}+", j = ${letter}+; +</script>$`));
});

test('markup that an engine writes a quote or an angle into stays what it is', () => {
  const text = `<a title="{{ "a" > 'b' }}" href=<%= x %>>t</a><b class='<? if ($a > 1) { ?>c<? } ?>'>u</b>`;
  const { text: masked } = maskPieces(text, enginePieces(text));
  assert.match(masked, /^<a title="[^"a-z ]+" href=[^>a-z ]+>t<\/a><b class='[^'>]*'>u<\/b>$/);
});

const tagOf = (text: string) => readEngineTag([{ text, offset: 0, pieces: enginePieces(text) }], 'ᚠ');

test('a branch inside a tag is two tags: what both have is sure, what one has is not', () => {
  const read = tagOf(
    `<td class="fare {% if a %}late{% else %}early{% endif %} {{ b ? 'x' : '' }}" {% if c %}id="d" hidden{% endif %} title="t">`,
  );
  assert.deepEqual(read.classes, ['fare']);
  assert.deepEqual([...(read.mayHave ?? [])].sort(), ['early', 'late', 'x']);
  assert.deepEqual([...read.sometimes].sort(), ['hidden', 'id']);
  assert.equal(read.prints, false);
});

test('one attribute or another of the same name, and classes that nobody knows', () => {
  const either = tagOf('<p {% if a %}class="b"{% else %}class="c"{% endif %}>');
  assert.deepEqual([either.classes, either.mayHave, [...either.sometimes]], [[], ['b', 'c'], []]);
  const atTimes = tagOf('<p {% if a %}class="b"{% endif %}>');
  assert.deepEqual([atTimes.classes, atTimes.mayHave, [...atTimes.sometimes]], [[], ['b'], ['class']]);
  assert.equal(tagOf('<p class="a b-{{ kind }}">').mayHave, undefined);
  assert.equal(tagOf('<p class="a" {{ more }}>').prints, true);
  assert.deepEqual(tagOf('<p title="{{ a }}" class="b">').mayHave, []);
});

test('a word that goes on behind a branch is another word', () => {
  const text = 'btn{% if a %}-wide{% endif %}';
  assert.deepEqual(
    alternativesOf(text, 0, enginePieces(text), () => ''),
    ['btn-wide', 'btn'],
  );
  const broken = 'a{% endif %}b';
  assert.equal(
    alternativesOf(broken, 0, enginePieces(broken), () => ''),
    undefined,
  );
});

const codesOf = (text: string, path: string): string[] =>
  enginePieces(text, path).map(
    ({ start, end, role, prints }) => `${text.slice(start, end).trim()} ${prints ? 'prints' : role}`,
  );

test('what only the ending of a file tells: single braces, directives, lines of code', () => {
  assert.deepEqual(
    codesOf(
      '{if $late}<b class="{$kind}">{fare.price}{else}{/if} {{{ if x }}}{{{ end }}}<style>a{color:red} b{ top: 0 }</style>',
      'a.tpl',
    ),
    [
      '{if $late} open',
      '{$kind} prints',
      '{fare.price} prints',
      '{else} else',
      '{/if} close',
      '{{{ if x }}} open',
      '{{{ end }}} close',
    ],
  );
  assert.deepEqual(codesOf('{box title="a"}{/box}{box}', 'a.tpl'), [
    '{box title="a"} open',
    '{/box} close',
    '{box} open',
  ]);
  assert.deepEqual(codesOf('{box title="a"}', 'a.tpl'), ['{box title="a"} prints']);
  assert.deepEqual(
    codesOf(
      "@extends('x')<p @if(f($a, g(1))) hidden @endif>a@b.example @@no {{ $x }}@section('t', 'u')</p>",
      'a.blade.php',
    ),
    [
      "@extends('x') none",
      '@if(f($a, g(1))) open',
      '@endif close',
      '{{ $x }} prints',
      "@section('t', 'u') prints",
    ],
  );
  assert.deepEqual(
    codesOf(
      '@model Fare\n@if (x > 1) {\n<p class="@(late ? "late" : "")">@Model.Name(1).Text</p>\n} else {\n<i>\n}\n@* no *@<script>if (a) {\n}\n</script>',
      'a.cshtml',
    ),
    [
      '@model prints',
      '@if (x > 1) { open',
      '@(late ? "late" : "") prints',
      '@Model.Name(1).Text prints',
      '} else { else',
      '} close',
      '@* no *@ none',
    ],
  );
  assert.deepEqual(codesOf('{name} @if(x)', 'a.html'), []);
  assert.deepEqual(outcomesOf('late ? "late" : ""'), ['late', '']);
});
