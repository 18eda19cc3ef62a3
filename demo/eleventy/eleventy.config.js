export default function configure(config) {
  config.addPassthroughCopy('assets');
  return { dir: { input: '.', includes: '_includes', output: '_site' }, markdownTemplateEngine: 'njk' };
}
