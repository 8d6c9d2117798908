package jollycrate.cli.manual;

import java.util.List;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;

/**
 * Completion for bash and zsh: commands, their options, names of servers and machines out of the
 * nearest {@code servers.toml}, files.
 */
final class Completion {
  private static final String NAMES =
      """
      _jolly_names() {
        local folder=$PWD
        while [ -n "$folder" ] && [ ! -f "$folder/servers.toml" ]; do folder=${folder%/*}; done
        [ -f "$folder/servers.toml" ] || return 0
        sed -n "s/^[[:space:]]*\\[$1\\.\\([A-Za-z0-9_-]*\\)].*/\\1/p" "$folder/servers.toml"
      }
      """;

  private Completion() {}

  static String bash(List<Usage> usages) {
    StringBuilder script = new StringBuilder("# Completion of jolly for bash: source this file.\n");
    script.append(NAMES);
    script.append(
        """
        _jolly() {
          local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]}
          local first=${COMP_WORDS[1]}
          _jolly_of() { COMPREPLY=($(compgen -W "$*" -- "$word")); }
          case $before in
            --to|--from|--on) _jolly_of $(_jolly_names server); return ;;
            --host) _jolly_of $(_jolly_names host); return ;;
          esac
          if [ "$COMP_CWORD" = 1 ]; then _jolly_of %s; return; fi
          case $first in
        """
            .formatted(firstWords(usages)));
    script.append(
        seconds(
            usages,
            """
                %1$s) [ "$COMP_CWORD" = 2 ] && { _jolly_of %2$s; return; }
                  [ "$COMP_CWORD" = 3 ] && [[ $word != -* ]] && { _jolly_of $(_jolly_names %1$s); return; }
                  first="%1$s ${COMP_WORDS[2]}" ;;
            """));
    script.append("  esac\n  case $word in -*) case $first in\n");
    script.append(options(usages)).append("  esac; return ;; esac\n");
    script.append("  COMPREPLY=($(compgen -f -- \"$word\"))\n}\n");
    script.append("complete -o filenames -F _jolly jolly\n");
    return script.toString();
  }

  static String zsh(List<Usage> usages) {
    StringBuilder script = new StringBuilder("#compdef jolly\n");
    script.append(NAMES);
    script.append(
        """
        local first=$words[2]
        _jolly_of() { compadd -- $*; }
        _jolly_named() { compadd -- ${(f)"$(_jolly_names $1)"}; }
        case $words[CURRENT-1] in
          --to|--from|--on) _jolly_named server; return ;;
          --host) _jolly_named host; return ;;
        esac
        if (( CURRENT == 2 )); then _jolly_of %s; return; fi
        case $first in
        """
            .formatted(firstWords(usages)));
    script.append(
        seconds(
            usages,
            """
              %1$s) (( CURRENT == 3 )) && { _jolly_of %2$s; return; }
                (( CURRENT == 4 )) && [[ $words[CURRENT] != -* ]] && { _jolly_named %1$s; return; }
                first="%1$s $words[3]" ;;
            """));
    script.append("esac\nif [[ $words[CURRENT] == -* ]]; then case $first in\n");
    script.append(options(usages)).append("esac; return; fi\n_files\n");
    return script.toString();
  }

  private static String firstWords(List<Usage> usages) {
    return usages.stream()
        .map(usage -> usage.name().split(" ")[0])
        .distinct()
        .collect(Collectors.joining(" "));
  }

  /** A case for each first word that others follow, by a form of the word and of those. */
  private static String seconds(List<Usage> usages, String form) {
    return usages.stream()
        .map(usage -> usage.name().split(" "))
        .filter(words -> words.length > 1)
        .collect(
            Collectors.groupingBy(
                words -> words[0],
                TreeMap::new,
                Collectors.mapping(words -> words[1], Collectors.joining(" "))))
        .entrySet()
        .stream()
        .map(of -> form.formatted(of.getKey(), of.getValue()))
        .collect(Collectors.joining());
  }

  /** A case for each command. */
  private static String options(List<Usage> usages) {
    return usages.stream()
        .map(usage -> "    '%s') _jolly_of %s ;;\n".formatted(usage.name(), options(usage)))
        .collect(Collectors.joining());
  }

  private static String options(Usage usage) {
    return Stream.concat(usage.own().stream(), usage.common().stream())
        .map(Option::name)
        .collect(Collectors.joining(" "));
  }
}
