package jollycrate.cli.manual;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;

/**
 * Completion for bash and zsh: commands, their options, names of servers out of the nearest {@code
 * servers.toml}, files.
 */
final class Completion {
  private static final String SERVERS =
      """
      _jolly_servers() {
        local folder=$PWD
        while [ -n "$folder" ] && [ ! -f "$folder/servers.toml" ]; do folder=${folder%/*}; done
        [ -f "$folder/servers.toml" ] || return 0
        sed -n 's/^[[:space:]]*\\[server\\.\\([A-Za-z0-9_-]*\\)].*/\\1/p' "$folder/servers.toml"
      }
      """;

  private Completion() {}

  static String bash(List<Usage> usages) {
    StringBuilder script = new StringBuilder("# Completion of jolly for bash: source this file.\n");
    script.append(SERVERS);
    script.append("_jolly() {\n");
    script.append("  local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]}\n");
    script.append("  local first=${COMP_WORDS[1]} second=${COMP_WORDS[2]}\n");
    script.append("  case $before in --to|--from|--on)\n");
    script.append("    COMPREPLY=($(compgen -W \"$(_jolly_servers)\" -- \"$word\")); return ;;\n");
    script.append("  esac\n");
    script.append("  if [ \"$COMP_CWORD\" = 1 ]; then\n");
    script.append("    COMPREPLY=($(compgen -W \"").append(firstWords(usages));
    script.append("\" -- \"$word\")); return\n  fi\n");
    script.append("  if [ \"$first\" = server ]; then\n    case $COMP_CWORD in\n");
    script.append("      2) COMPREPLY=($(compgen -W \"").append(secondWords(usages));
    script.append("\" -- \"$word\")); return ;;\n");
    script.append(
        "      3) COMPREPLY=($(compgen -W \"$(_jolly_servers)\" -- \"$word\")); return ;;\n");
    script.append("    esac\n    first=\"server $second\"\n  fi\n");
    script.append("  case $word in -*) case $first in\n");
    usages.forEach(
        usage ->
            script
                .append("    '")
                .append(usage.name())
                .append("') COMPREPLY=($(compgen -W \"")
                .append(options(usage))
                .append("\" -- \"$word\")) ;;\n"));
    script.append("  esac; return ;; esac\n");
    script.append("  COMPREPLY=($(compgen -f -- \"$word\"))\n}\n");
    script.append("complete -o filenames -F _jolly jolly\n");
    return script.toString();
  }

  static String zsh(List<Usage> usages) {
    StringBuilder script = new StringBuilder("#compdef jolly\n");
    script.append(SERVERS);
    script.append("local -a names servers\n");
    script.append("local first=$words[2]\n");
    script.append("servers=(${(f)\"$(_jolly_servers)\"})\n");
    script.append(
        "case $words[CURRENT-1] in --to|--from|--on) compadd -a servers; return ;; esac\n");
    script.append("if (( CURRENT == 2 )); then compadd ").append(firstWords(usages));
    script.append("; return; fi\n");
    script.append("if [[ $first == server ]]; then\n");
    script.append("  (( CURRENT == 3 )) && { compadd ").append(secondWords(usages));
    script.append("; return; }\n  (( CURRENT == 4 )) && { compadd -a servers; return; }\n");
    script.append("  first=\"server $words[3]\"\nfi\n");
    script.append("if [[ $words[CURRENT] == -* ]]; then case $first in\n");
    usages.forEach(
        usage ->
            script
                .append("  '")
                .append(usage.name())
                .append("') compadd -- ")
                .append(options(usage))
                .append(" ;;\n"));
    script.append("esac; return; fi\n_files\n");
    return script.toString();
  }

  private static String firstWords(List<Usage> usages) {
    return usages.stream()
        .map(usage -> usage.name().split(" ")[0])
        .distinct()
        .collect(Collectors.joining(" "));
  }

  private static String secondWords(List<Usage> usages) {
    return usages.stream()
        .map(Usage::name)
        .filter(name -> name.startsWith("server "))
        .map(name -> name.substring("server ".length()))
        .collect(Collectors.joining(" "));
  }

  private static String options(Usage usage) {
    return Stream.concat(usage.own().stream(), usage.common().stream())
        .map(Option::name)
        .collect(Collectors.joining(" "));
  }
}
