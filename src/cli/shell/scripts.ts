// The scripts that shells complete by: each asks `acervus shell words` for what may stand there. And the man page.

import type { Argument, Command } from 'commander';
import { withoutEnd } from '../../core/base/phrases.js';
import { programVersion } from '../../site/version.js';

const SCRIPTS = {
  bash: `_acervus() {
  local IFS=$'\\n'
  COMPREPLY=($(acervus shell words -- "\${COMP_WORDS[@]:1:COMP_CWORD}" 2>/dev/null))
  if [ "\${#COMPREPLY[@]}" -eq 1 ] && [ "\${COMPREPLY[0]: -1}" = / ]; then compopt -o nospace; fi
}
complete -o default -F _acervus acervus
`,
  zsh: `#compdef acervus
_acervus() {
  local -a found
  found=("\${(@f)$(acervus shell words -- "\${(@)words[2,CURRENT]}" 2>/dev/null)}")
  compadd -Q -- \${found:#}
}
compdef _acervus acervus
`,
  fish: `function __acervus_words
  set -l typed (commandline -opc) (commandline -ct)
  acervus shell words -- $typed[2..-1] 2>/dev/null
end
complete -c acervus -f -a '(__acervus_words)'
`,
} as const;

export function shellScript(shell: keyof typeof SCRIPTS): string {
  return SCRIPTS[shell];
}

/** In roff, for the macros of man(7). */
export function manPage(program: Command): string {
  const lines = [
    `.TH ACERVUS 1 "" "Acervus ${programVersion().split('+')[0]}"`,
    '.SH NAME',
    `acervus \\- ${roff(program.description())}`,
    '.SH SYNOPSIS',
    '.B acervus',
    '.I command',
    '[options] [site]',
  ];
  for (const [group, commands] of grouped(program.commands)) {
    lines.push(`.SH ${roff(withoutEnd(group, ':').toUpperCase())}`);
    for (const command of commands) {
      lines.push(
        `.SS acervus ${roff(`${command.name()} ${command.registeredArguments.map(shown).join(' ')}`.trim())}`,
      );
      lines.push(roff(capital(command.description())));
      for (const { flags, description } of command.options)
        lines.push('.TP', `.B ${roff(flags)}`, roff(description));
    }
  }
  lines.push(
    '.SH EXIT STATUS',
    '.TP',
    '0',
    'Done, or nothing found.',
    '.TP',
    '1',
    'Found what the command looks for.',
    '.TP',
    '2',
    'Wrong use, or input that cannot be read.',
    '.TP',
    '3',
    'A fault of Acervus itself.',
  );
  return `${lines.join('\n')}\n`;
}

function grouped(commands: readonly Command[]): Map<string, Command[]> {
  const groups = new Map<string, Command[]>();
  for (const command of commands) {
    const group = command.helpGroup() || 'Commands:';
    groups.set(group, [...(groups.get(group) ?? []), command]);
  }
  return groups;
}

function shown(argument: Argument): string {
  const name = `${argument.name()}${argument.variadic ? '...' : ''}`;
  return argument.required ? `<${name}>` : `[${name}]`;
}

function capital(text: string): string {
  return `${text.slice(0, 1).toUpperCase()}${text.slice(1)}.`;
}

/** What roff would obey stands for itself. */
function roff(text: string): string {
  return text
    .replaceAll('\\', '\\e')
    .replaceAll('-', '\\-')
    .replace(/^([.'])/gm, '\\&$1');
}
